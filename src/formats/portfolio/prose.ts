import { splitNames } from '@/core/names';
import { looksLikeDate } from '@/core/time';
import { looksLikeName } from './columns';

/** A name found in a text, with the dates beside it as they are written; '' for none. */
export interface ProseName {
  readonly line: number;
  readonly name: string;
  readonly expires: string;
  readonly registered: string;
}

/** What a text of names and words holds. */
export interface Prose {
  readonly rows: readonly ProseName[];
  /** How many words it has in all, and how many of them are neither names nor dates. */
  readonly words: number;
  readonly leftOut: number;
}

/** The most words of a date: “Thu, 21 Sep 2027 10:15:00 GMT”. */
const LONGEST_DATE = 6;
const BEGINS = /^(registered|created|since|bought|from|registriert|erstellt|créé|creado|registrato|geregistreerd)$/i;
const bare = (word: string) => word.replace(/^[([{<"'“”‘’]+|[)\]}>"'“”‘’.,;:!?]+$/gu, '');

/**
 * Finds names among words: “kelpkiln.com (expires 2027-02-02), seaholly.com renews 3 Mar 2027”. A date behind a name on its line is
 * the end of its term, or the begin where a word says so. A word that stands alone on its line is taken for a name without ending.
 */
export function readProse(text: string): Prose {
  const rows: { line: number; name: string; expires: string; registered: string }[] = [];
  let words = 0;
  let leftOut = 0;
  const lines = new Map<number, string[]>();
  for (const { line, text: word } of splitNames(text)) {
    const own = lines.get(line);
    if (own) own.push(word);
    else lines.set(line, [word]);
    words += 1;
  }
  for (const [line, pieces] of lines) {
    let at = 0;
    let isBegin = false;
    while (at < pieces.length) {
      const word = bare(pieces[at] as string);
      const length = dateAt(pieces, at);
      const last = rows.at(-1);
      if (length > 0 && last?.line === line) {
        const key = isBegin ? 'registered' : 'expires';
        if (last[key] === '') last[key] = bare(pieces.slice(at, at + length).join(' '));
        else leftOut += length;
        at += length;
        isBegin = false;
        continue;
      }
      if (isName(pieces[at] as string, word) || pieces.length === 1) {
        rows.push({ line, name: pieces[at] as string, expires: '', registered: '' });
        isBegin = false;
      } else if (word !== '') {
        leftOut += 1;
        isBegin = BEGINS.test(word) || (isBegin && /^(on|am|le|el|il|op|em)$/i.test(word));
      }
      at += 1;
    }
  }
  return { rows, words, leftOut };
}

/** A name, an address that holds one, or what was meant for one. */
const isName = (piece: string, word: string) =>
  looksLikeName(word) ||
  /^[a-z][a-z0-9+.-]*:\/\/\S+\.\S/i.test(word) ||
  /^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(word) ||
  /^[^\s/]+\.\p{L}{2,}\//u.test(piece);

const isDate = (pieces: readonly string[], from: number, to: number) =>
  looksLikeDate(bare(pieces.slice(from, to).join(' ')));

/** How many of the pieces from `at` on are one date; 0 for none, also where the date begins with the next. */
function dateAt(pieces: readonly string[], at: number): number {
  if (!/\d|\p{L}/u.test(pieces[at] ?? '')) return 0;
  for (let length = Math.min(LONGEST_DATE, pieces.length - at); length > 0; length -= 1)
    if (isDate(pieces, at, at + length)) return length > 1 && isDate(pieces, at + 1, at + length) ? 0 : length;
  return 0;
}
