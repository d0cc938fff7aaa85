import { CONFUSABLES } from './confusables';

const SCRIPTS = ['Latin', 'Cyrillic', 'Greek', 'Armenian', 'Hebrew', 'Arabic', 'Devanagari', 'Thai', 'Hangul'] as const;
/** Scripts that are written together in one language, and so are no reason for a warning (UTS #39 section 5.1). */
const EAST_ASIAN = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Bopomofo}]/u;
/** Japanese, Chinese and Korean are written with Latin letters in between (UTS #39 section 5.2, highly restrictive). */
const WRITTEN_TOGETHER: ReadonlySet<string> = new Set(['Latin', 'Han', 'Hangul']);
const PATTERNS = SCRIPTS.map((script) => [script, new RegExp(`\\p{Script=${script}}`, 'u')] as const);

/** A sentence when the letters of a name may be taken for others, `null` for an ordinary name. `unicode` is its U-label form. */
export function lookAlikeWarning(unicode: string): string | null {
  if (/^[\x20-\x7e]*$/.test(unicode)) return null;
  for (const label of unicode.split('.')) {
    const found = PATTERNS.filter(([, pattern]) => pattern.test(label)).map(([script]) => script as string);
    if (EAST_ASIAN.test(label)) found.push('Han');
    if (found.length > 1 && !found.every((script) => WRITTEN_TOGETHER.has(script)))
      return `${label} mixes ${found.join(' and ')} letters. Read it letter by letter.`;
    const twin = latinTwin(label);
    if (twin !== null) return `${label} can be read as ${twin}, though its letters are others.`;
  }
  return null;
}

/** The Latin word a label can be taken for when every letter of another script in it has a Latin twin, else `null`. */
function latinTwin(label: string): string | null {
  let twin = '';
  for (const letter of label) {
    const same = CONFUSABLES.get(letter) ?? (/[a-z0-9-]/.test(letter) ? letter : null);
    if (same === null) return null;
    twin += same;
  }
  return twin === label ? null : twin;
}

/** Letters that are taken for one another within a-z and 0-9; UTS #39 has the last two of `rn` and `1` alone. */
const TAKEN_FOR: readonly (readonly [string, string])[] = [
  ['vv', 'w'],
  ['rn', 'm'],
  ['0', 'o'],
  ['1', 'l'],
];

/**
 * What a label is read as at a glance: two labels of one skeleton look alike (UTS #39 section 4, in small). `i` and `l` stay apart: in
 * most faces they differ.
 */
export function skeletonOf(unicode: string): string {
  let skeleton = '';
  for (const letter of unicode.normalize('NFD').replace(/\p{Mn}/gu, '')) skeleton += CONFUSABLES.get(letter) ?? letter;
  for (const [from, to] of TAKEN_FOR) skeleton = skeleton.replaceAll(from, to);
  return skeleton;
}
