import { MOST_CANDIDATES, wordsOfIdeas } from '@/core/acquiring';
import { parseDomainName } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayOf, parseDay } from '@/core/time';
import { type ComingFreeRow, countComingFree, selectComingFree, upsertComingFree } from '@/database/comingFree';
import { selectIdeaSets } from '@/database/ideaSets';
import { type LostName, selectLostNames } from '@/database/names';
import { transaction } from '@/database/pool';
import { readTable } from '@/formats/csv/readTable';
import type { Deps } from '../deps';
import { command } from '../people/command';

export type { ComingFreeRow } from '@/database/comingFree';
export type { LostName } from '@/database/names';

const MOST_ROWS = 100_000;
const NAME_HEADINGS: ReadonlySet<string> = new Set(['name', 'domain', 'domain name']);
const DAY_HEADINGS: ReadonlySet<string> = new Set([
  'date',
  'day',
  'free on',
  'release',
  'release date',
  'drop date',
  'deletion date',
  'available',
]);

/** What came of a list of names that are about to come free. */
export interface BroughtFree {
  readonly added: number;
  readonly known: number;
  readonly refused: readonly { readonly line: number; readonly problem: string }[];
}

/**
 * Takes in a list of names that are about to come free: a table with a name and, where it has one, a date (`YYYY-MM-DD`), or a name on each line.
 * It is kept with where it comes from and when. Rows that are no names are told by their line.
 */
export const bringInComingFree = command(
  'bringInComingFree',
  async (deps: Deps, text: string, source: string): Promise<BroughtFree | Refusal> => {
    if (source.trim() === '') return refuse('source-missing', 'Write where this list comes from.', 'source');
    const table = readTable(text);
    if (isRefusal(table)) return table;
    if (table.rows.length > MOST_ROWS) return refuse('too-many-rows', 'Bring in up to 100,000 names at a time.');
    const headings = (table.rows[0]?.cells ?? []).map((cell) => cell.trim().toLowerCase());
    const hasHeadings = headings.some((heading) => NAME_HEADINGS.has(heading));
    const nameAt = hasHeadings ? headings.findIndex((heading) => NAME_HEADINGS.has(heading)) : 0;
    const dayAt = hasHeadings ? headings.findIndex((heading) => DAY_HEADINGS.has(heading)) : 1;
    const names: Parameters<typeof upsertComingFree>[1][number][] = [];
    const refused: { line: number; problem: string }[] = [];
    for (const { line, cells } of hasHeadings ? table.rows.slice(1) : table.rows) {
      const name = parseDomainName(cells[nameAt] ?? '');
      const written = dayAt < 0 ? '' : (cells[dayAt] ?? '').trim();
      const onDay = written === '' ? null : parseDay(written.slice(0, 10));
      if (isRefusal(name)) refused.push({ line, problem: name.message });
      else if (written !== '' && onDay === null) refused.push({ line, problem: 'Write the day like 2027-03-09.' });
      else names.push({ ascii: name.ascii, unicode: name.unicode, ending: name.ending, onDay });
    }
    const added = await transaction(deps.database, (tx) =>
      upsertComingFree(tx, names, source.trim().slice(0, 120), deps.clock()),
    );
    return { added, known: names.length - added, refused };
  },
);

/** Listed names beside one's own ideas. */
export interface ComingFree {
  /** Names on all lists. */
  readonly listed: number;
  /** Those that hold a word of a kept set of ideas, the earliest first; of all lists where no ideas are kept. */
  readonly fitting: readonly ComingFreeRow[];
  /** Names of one's own that were lost. */
  readonly lost: readonly LostName[];
}

const MOST_SHOWN = 300;
const MOST_LOST = 100;
/** Shorter words stand in too many names. */
const SHORTEST_WORD = 3;

/** What lists say will come free, as far as it fits one's own ideas, and what was lost. */
export async function comingFree(deps: Deps): Promise<ComingFree> {
  const sets = await selectIdeaSets(deps.database);
  const words = wordsOfIdeas(sets.map(({ ideas }) => ideas))
    .filter((word) => word.length >= SHORTEST_WORD)
    .slice(0, MOST_CANDIDATES);
  const [listed, fitting, lost] = await Promise.all([
    countComingFree(deps.database),
    selectComingFree(deps.database, words, dayOf(deps.clock()), MOST_SHOWN),
    selectLostNames(deps.database, MOST_LOST),
  ]);
  return { listed, fitting, lost };
}
