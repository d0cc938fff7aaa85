import { lookAlikeWarning, nearSpellings, skeletonOf } from '../names';

/** What a reader or a listener may get wrong. */
export interface SpellingNote {
  readonly kind:
    | 'letters meet'
    | 'misread'
    | 'digits'
    | 'hyphen'
    | 'sounds like'
    | 'other letters'
    | 'looks like'
    | 'misspelt';
  readonly text: string;
}

/** A label as it is spelt out, letter by letter, and what may go wrong with it. */
export interface Spelling {
  readonly letters: readonly string[];
  /** How it is spelt on the telephone; `null` for letters outside a-z, 0-9 and the hyphen. */
  readonly aloud: string | null;
  readonly notes: readonly SpellingNote[];
}

/** Words of the spelling alphabet used at sea and in the air (ITU Radio Regulations, appendix 14). */
const ALOUD: Readonly<Record<string, string>> = {
  a: 'alfa',
  b: 'bravo',
  c: 'charlie',
  d: 'delta',
  e: 'echo',
  f: 'foxtrot',
  g: 'golf',
  h: 'hotel',
  i: 'india',
  j: 'juliett',
  k: 'kilo',
  l: 'lima',
  m: 'mike',
  n: 'november',
  o: 'oscar',
  p: 'papa',
  q: 'quebec',
  r: 'romeo',
  s: 'sierra',
  t: 'tango',
  u: 'uniform',
  v: 'victor',
  w: 'whiskey',
  x: 'x-ray',
  y: 'yankee',
  z: 'zulu',
  '0': 'zero',
  '1': 'one',
  '2': 'two',
  '3': 'three',
  '4': 'four',
  '5': 'five',
  '6': 'six',
  '7': 'seven',
  '8': 'eight',
  '9': 'nine',
  '-': 'hyphen',
};

/** Words that sound alike, or are spelt two ways. From memory. */
const SOUND_ALIKE: readonly (readonly string[])[] = [
  ['sea', 'see'],
  ['sail', 'sale'],
  ['tide', 'tied'],
  ['quay', 'key'],
  ['pier', 'peer'],
  ['wrack', 'rack'],
  ['knot', 'not'],
  ['bay', 'bey'],
  ['beach', 'beech'],
  ['berth', 'birth'],
  ['board', 'bored'],
  ['whale', 'wail', 'wale'],
  ['wave', 'waive'],
  ['mail', 'male'],
  ['dew', 'due'],
  ['fir', 'fur'],
  ['hall', 'haul'],
  ['tern', 'turn'],
  ['weather', 'whether'],
  ['current', 'currant'],
  ['plane', 'plain'],
  ['pair', 'pear'],
  ['right', 'write'],
  ['son', 'sun'],
  ['for', 'four'],
  ['to', 'too', 'two'],
  ['one', 'won'],
  ['mussel', 'muscle'],
  ['place', 'plaice'],
  ['sole', 'soul'],
  ['harbour', 'harbor'],
  ['colour', 'color'],
  ['grey', 'gray'],
  ['centre', 'center'],
];
const SOUNDS = new Map(SOUND_ALIKE.flatMap((group) => group.map((word) => [word, group] as const)));

const MISREAD: readonly (readonly [string, string])[] = [
  ['rn', 'm'],
  ['vv', 'w'],
  ['cl', 'd'],
];

/**
 * How a label reads and sounds: letters that meet where its pieces join, what is misread at a glance, digits and hyphens that have to be
 * said, words that sound like others, letters of other scripts. `known` are labels, by skeleton, that it may be taken for.
 */
export function spellingOf(
  unicode: string,
  pieces: readonly string[],
  known: ReadonlyMap<string, readonly string[]> = new Map(),
): Spelling {
  const letters = [...unicode];
  const notes: SpellingNote[] = [];
  const add = (kind: SpellingNote['kind'], text: string) => notes.push({ kind, text });
  for (const [i, piece] of pieces.entries()) {
    const next = pieces[i + 1];
    const last = [...piece].at(-1);
    if (next !== undefined && last !== undefined && last === [...next][0])
      add('letters meet', `${last}${last} where ${piece} and ${next} meet`);
  }
  for (const [from, to] of MISREAD) if (unicode.includes(from)) add('misread', `${from} can be read as ${to}`);
  if (/[01]/.test(unicode)) add('misread', 'digits 0 and 1 can be read as letters');
  if (/[0-9]/.test(unicode)) add('digits', 'say whether a number is written in digits');
  const hyphens = letters.filter((letter) => letter === '-').length;
  if (hyphens > 0) add('hyphen', hyphens === 1 ? 'the hyphen has to be said' : `${hyphens} hyphens have to be said`);
  for (const piece of new Set(pieces)) {
    const others = (SOUNDS.get(piece) ?? []).filter((word) => word !== piece);
    if (others.length > 0) add('sounds like', `${piece} sounds like ${others.join(' and ')}`);
  }
  const warning = lookAlikeWarning(unicode);
  if (warning !== null) add('other letters', warning);
  else if (/[^\x20-\x7e]/.test(unicode)) add('other letters', 'some keyboards lack its letters');
  // The same label under another ending is no look-alike.
  const twins = (known.get(skeletonOf(unicode)) ?? []).filter(
    (other) => other.slice(0, other.indexOf('.')) !== unicode,
  );
  if (twins.length > 0) add('looks like', `looks like ${twins.slice(0, 5).join(', ')}`);
  const aloud = letters.map((letter) => ALOUD[letter]);
  return { letters, aloud: aloud.every((word) => word !== undefined) ? aloud.join(' ') : null, notes };
}

/** Names by the skeleton of their labels, to be looked up by `spellingOf`. `names` in U-label form. */
export function bySkeleton(names: Iterable<string>): Map<string, string[]> {
  const known = new Map<string, string[]>();
  for (const name of names) {
    const skeleton = skeletonOf(name.slice(0, name.indexOf('.')));
    const list = known.get(skeleton);
    if (list) list.push(name);
    else known.set(skeleton, [name]);
  }
  return known;
}

/** Shorter words are one letter away from too many others. */
const SHORTEST_MISSPELT = 5;

/**
 * What a word was perhaps meant to be: a word one slip away (a letter left out, doubled, swapped, or beside it on the keys) that stands in
 * labels one has, the most frequent one, while the word as it is stands in none. `null` where nothing points to a slip.
 */
export function perhapsMeant(word: string, labels: readonly string[]): string | null {
  if (!/^[a-z]+$/.test(word) || word.length < SHORTEST_MISSPELT) return null;
  if (labels.some((label) => label.includes(word))) return null;
  const leftOut = Array.from({ length: word.length - 1 }, (_, i) => `${word.slice(0, i + 1)}[a-z]${word.slice(i + 1)}`);
  const slips = nearSpellings(`${word}.x`)
    .filter((name) => name.endsWith('.x'))
    .map((name) => name.slice(0, -2))
    .filter((near) => /^[a-z]{5,}$/.test(near) && !word.includes(near));
  const pattern = new RegExp([...leftOut, ...slips].join('|'), 'g');
  const counts = new Map<string, number>();
  for (const label of labels)
    for (const [near] of label.matchAll(pattern)) counts.set(near, (counts.get(near) ?? 0) + 1);
  // Two spellings of one word are told as such elsewhere.
  const others = [...counts].filter(([near]) => !SOUNDS.get(word)?.includes(near));
  return others.sort((one, other) => other[1] - one[1])[0]?.[0] ?? null;
}

/**
 * A word that a label was perhaps meant to hold: it holds the word one slip away, and not the word itself. `null` where nothing points to
 * a slip.
 */
export function slipIn(
  label: string,
  words: readonly string[],
): { readonly piece: string; readonly meant: string } | null {
  for (const word of words) {
    if (!/^[a-z]+$/.test(word) || word.length < SHORTEST_MISSPELT || label.includes(word)) continue;
    if (!holdsHalfOf(label, word)) continue;
    const piece = nearSpellings(`${word}.x`)
      .filter((name) => name.endsWith('.x'))
      .map((name) => name.slice(0, -2))
      .find(
        (slip) =>
          slip.length >= SHORTEST_MISSPELT && !slip.includes('-') && !word.includes(slip) && label.includes(slip),
      );
    if (piece !== undefined) return { piece, meant: word };
  }
  return null;
}

/** A slip touches two letters at most: the half before them or the half after them stands as it is. Spares spelling out slips that cannot be. */
function holdsHalfOf(label: string, word: string): boolean {
  const letters = Math.ceil((word.length - 2) / 2);
  return label.includes(word.slice(0, letters)) || label.includes(word.slice(-letters));
}

/** A piece of a name beside what was typed: the same in both, only in the name, or only in what was typed. */
export interface TypedPiece {
  readonly text: string;
  readonly where: 'both' | 'name' | 'typed';
}

/** What was typed, as a whole name: a word alone stands under the name's own ending. Both in U-labels. */
export function typedInFull(typed: string, unicode: string): string {
  const text = typed.trim().toLowerCase().normalize('NFC');
  return text.includes('.') ? text : `${text}${unicode.slice(unicode.indexOf('.'))}`;
}

/** Where a name differs from what was typed first, letter by letter; one piece where it does not. Both as they are shown. */
export function besideTyped(unicode: string, typed: string): TypedPiece[] {
  const [letters, wanted] = [[...unicode], [...typed]];
  const width = wanted.length + 1;
  const table = new Uint16Array((letters.length + 1) * width);
  const at = (i: number, j: number) => table[i * width + j] ?? 0;
  for (let i = letters.length - 1; i >= 0; i -= 1)
    for (let j = wanted.length - 1; j >= 0; j -= 1)
      table[i * width + j] = letters[i] === wanted[j] ? at(i + 1, j + 1) + 1 : Math.max(at(i + 1, j), at(i, j + 1));
  const pieces: { text: string; where: TypedPiece['where'] }[] = [];
  const add = (letter: string | undefined, where: TypedPiece['where']) => {
    const last = pieces.at(-1);
    if (last?.where === where) last.text += letter;
    else pieces.push({ text: letter ?? '', where });
  };
  let [i, j] = [0, 0];
  while (i < letters.length || j < wanted.length) {
    if (i < letters.length && j < wanted.length && letters[i] === wanted[j]) {
      add(letters[i], 'both');
      i += 1;
      j += 1;
    } else if (j >= wanted.length || (i < letters.length && at(i + 1, j) >= at(i, j + 1))) {
      add(letters[i], 'name');
      i += 1;
    } else {
      add(wanted[j], 'typed');
      j += 1;
    }
  }
  return pieces;
}
