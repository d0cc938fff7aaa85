/** A stretch of a text, and whether another text lacks it. */
export interface TextPart {
  readonly text: string;
  readonly differs: boolean;
}

const WORDS = /[^\s,]+|[\s,]+/g;

/**
 * A text cut into stretches by whether `other` has the same words, whatever their order: what a person has to look at in two lists of name servers, two
 * registrars, two days. Separators belong to the stretch before them.
 */
export function differingParts(text: string, other: string): TextPart[] {
  const known = new Set((other.match(WORDS) ?? []).map((word) => word.toLowerCase()));
  const parts: { text: string; differs: boolean }[] = [];
  for (const word of text.match(WORDS) ?? []) {
    const last = parts.at(-1);
    const isSeparator = /^[\s,]+$/.test(word);
    const differs = isSeparator ? (last?.differs ?? false) : !known.has(word.toLowerCase());
    if (last && last.differs === differs) last.text += word;
    else parts.push({ text: word, differs });
  }
  return parts;
}
