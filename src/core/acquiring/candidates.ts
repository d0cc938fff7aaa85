import { letterNotInIdna2008, parseDomainName } from '../names';
import { isRefusal, type Refusal, refuse } from '../refusal';
import { readIdeas } from './ideas';
import { labelsOf, readPatterns } from './patterns';

/** A label that may be registered under any of the chosen endings. */
export interface Candidate {
  /** A-label form. */
  readonly label: string;
  readonly unicode: string;
  /** What it was put together from; one piece for a word as it was typed. */
  readonly pieces: readonly string[];
}

/** What ideas come to. */
export interface Candidates {
  readonly candidates: readonly Candidate[];
  /** Labels that no registry takes, with why. */
  readonly refused: readonly { readonly label: string; readonly why: string }[];
  /** Endings that were typed with a name. */
  readonly endings: readonly string[];
}

/** As many labels as one set of ideas may come to. */
export const MOST_CANDIDATES = 5000;
const MOST_REFUSED = 200;

/**
 * Candidates from words and whole names, one or a thousand, put together by patterns, each label once. A whole name (`kelpkiln.com`) is
 * taken as its label and brings its ending. Every label is tested by character: IDNA2008 (RFC 5891 section 4.2) and the lengths and hyphens
 * of RFC 5890 section 2.3. Refused: no ideas, a pattern that is none, more than 5,000 labels.
 */
export function candidatesFrom(ideas: string, written: readonly string[]): Candidates | Refusal {
  const patterns = readPatterns(written);
  if (isRefusal(patterns)) return patterns;
  const { words, names, endings } = readIdeas(ideas);
  if (words.length + names.length === 0)
    return refuse('no-ideas', 'Write some words, like tern, cairn, wrack.', 'ideas');
  const made = new Map<string, readonly string[]>(names.map((label) => [label, [label]]));
  for (const pattern of patterns) {
    for (const { label, pieces } of labelsOf(pattern, words)) {
      if (!made.has(label)) made.set(label, pieces);
      if (made.size > MOST_CANDIDATES)
        return refuse(
          'too-many-candidates',
          `These words and patterns come to more than ${MOST_CANDIDATES.toLocaleString('en')} candidates. Take fewer words, or fewer patterns.`,
          'ideas',
        );
    }
  }
  const candidates: Candidate[] = [];
  const refused: { label: string; why: string }[] = [];
  for (const [text, pieces] of made) {
    const label = readLabel(text);
    if (typeof label === 'string') candidates.push({ label, unicode: text.normalize('NFC'), pieces });
    else if (refused.length < MOST_REFUSED) refused.push({ label: text, why: label.message });
  }
  return { candidates, refused, endings };
}

/** The A-label of a label, or why it is none. Read under an ending that takes everything that is a name at all. */
function readLabel(text: string): string | Refusal {
  if (text.includes('.')) return refuse('label-with-dot', `${text} holds a dot.`);
  const letter = letterNotInIdna2008(text);
  if (letter !== null && letter > '\u007f')
    return refuse('letter-not-registrable', `${text} holds “${letter}”, which no registry takes any more.`);
  const name = parseDomainName(`${text}.com`);
  if (isRefusal(name)) return name;
  // What is taken off a pasted name is no part of a label.
  return name.unicode === `${text}.com`
    ? name.ascii.slice(0, name.ascii.indexOf('.'))
    : refuse('name-bad-letter', `${text} holds a character that a name cannot have. Check the spelling.`);
}
