import { isRefusal, type Refusal, refuse } from '../refusal';

/** A piece of a pattern: letters that stand as they are, or a word in a slot, whole or its first letters. */
type Piece =
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'slot'; readonly slot: number; readonly letters: number | null };

/** How words are put together, as it is written: `{a}{b}`, `{a}-{b}`, `the{a}`, `{a:1}{b}` (the first letter of one, then another). */
export interface Pattern {
  readonly written: string;
  readonly pieces: readonly Piece[];
  /** Different words that it needs: 1 to 3. */
  readonly slots: number;
}

/** Patterns that one may begin with. */
export const USUAL_PATTERNS = ['{a}', '{a}{b}', '{a}-{b}', 'the{a}', '{a:1}{b}'] as const;

const SLOTS = 'abc';
const PIECE = /\{([a-z])(?::(\d{1,2}))?\}|([^{}]+)/gu;

/** Reads a pattern. Refused: without a slot, with one that skips a letter, with braces that are not closed. */
export function readPattern(written: string): Pattern | Refusal {
  const text = written.trim().toLowerCase();
  const pieces: Piece[] = [];
  let read = 0;
  for (const match of text.matchAll(PIECE)) {
    const [whole, slot, letters, plain] = match;
    read += whole.length;
    if (plain !== undefined) pieces.push({ kind: 'text', text: plain });
    else pieces.push({ kind: 'slot', slot: SLOTS.indexOf(slot ?? ''), letters: letters ? Number(letters) : null });
  }
  const used = new Set(pieces.flatMap((piece) => (piece.kind === 'slot' ? [piece.slot] : [])));
  const isWhole = read === text.length && text.length <= 60;
  if (!isWhole || used.size === 0 || used.has(-1) || !Array.from(used, (_, i) => i).every((slot) => used.has(slot)))
    return refuse(
      'pattern-unreadable',
      `“${written.slice(0, 60)}” is no pattern. Write words as {a}, {b} and {c}, like {a}-{b}; {a:1} is the first letter of a.`,
      'patterns',
    );
  return { written: text, pieces, slots: used.size };
}

/** A label made by a pattern, with the pieces it was put together from. */
export interface Made {
  readonly label: string;
  readonly pieces: readonly string[];
}

/** Every label that a pattern makes of words, in the order of the words; no word stands twice in one. */
export function* labelsOf({ pieces, slots }: Pattern, words: readonly string[]): Generator<Made> {
  for (const chosen of choices(words, slots)) {
    const parts = pieces.map((piece) => {
      if (piece.kind === 'text') return piece.text;
      const word = chosen[piece.slot] as string;
      return piece.letters === null ? word : [...word].slice(0, piece.letters).join('');
    });
    yield { label: parts.join(''), pieces: parts };
  }
}

function* choices(words: readonly string[], count: number): Generator<readonly string[]> {
  if (count === 0) {
    yield [];
    return;
  }
  for (const word of words)
    for (const rest of choices(
      words.filter((other) => other !== word),
      count - 1,
    ))
      yield [word, ...rest];
}

/** All of several patterns, or the first refusal. */
export function readPatterns(written: readonly string[]): Pattern[] | Refusal {
  const patterns: Pattern[] = [];
  for (const one of written) {
    const pattern = readPattern(one);
    if (isRefusal(pattern)) return pattern;
    patterns.push(pattern);
  }
  return patterns;
}
