const SCRIPTS = ['Latin', 'Cyrillic', 'Greek', 'Armenian', 'Hebrew', 'Arabic', 'Devanagari', 'Thai', 'Hangul'] as const;
/** Scripts that are written together in one language, and so are no reason for a warning (UTS #39 section 5.1). */
const EAST_ASIAN = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Bopomofo}]/u;
/** Japanese, Chinese and Korean are written with Latin letters in between (UTS #39 section 5.2, highly restrictive). */
const WRITTEN_TOGETHER: ReadonlySet<string> = new Set(['Latin', 'Han', 'Hangul']);
const PATTERNS = SCRIPTS.map((script) => [script, new RegExp(`\\p{Script=${script}}`, 'u')] as const);

/** Letters of other scripts that read as Latin ones in most faces. A small part of UTS #39's confusables, from memory. */
const LATIN_TWINS: Readonly<Record<string, string>> = {
  а: 'a',
  е: 'e',
  о: 'o',
  р: 'p',
  с: 'c',
  у: 'y',
  х: 'x',
  і: 'i',
  ј: 'j',
  ѕ: 's',
  ԁ: 'd',
  ԛ: 'q',
  ԝ: 'w',
  һ: 'h',
  ӏ: 'l',
  α: 'a',
  ο: 'o',
  ρ: 'p',
  ν: 'v',
  υ: 'u',
  ι: 'i',
  κ: 'k',
  τ: 't',
  ω: 'w',
  օ: 'o',
  ս: 'u',
  հ: 'h',
  ո: 'n',
  զ: 'q',
  ı: 'i',
  ɑ: 'a',
  ɡ: 'g',
  ɩ: 'i',
  ꞁ: 'l',
};

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
    const same = LATIN_TWINS[letter] ?? (/[a-z0-9-]/.test(letter) ? letter : null);
    if (same === null) return null;
    twin += same;
  }
  return twin === label ? null : twin;
}
