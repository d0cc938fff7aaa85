import { parseDomainName } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { VISITS_SHOWN_DAYS } from '@/core/shop';
import { type HistoryRow, selectHistory } from '@/database/changes';
import { type EntryRow, selectEntries } from '@/database/entries';
import { type NameExtras, selectNameExtras, selectNameIds } from '@/database/names';
import { selectVisits } from '@/database/visits';
import type { Deps } from '../deps';

export type { HistoryRow } from '@/database/changes';
export type { EntryRow } from '@/database/entries';

/** What a name's page shows beyond its row in the ledger. */
export interface NameDetail {
  readonly id: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly extras: NameExtras;
  readonly entries: readonly EntryRow[];
  readonly history: readonly HistoryRow[];
  /** How often its shop window was opened in 30 days, robots left out. */
  readonly visits: number;
}

/** Money, history and the rest of one name, however it is written. */
export async function nameDetail(deps: Deps, written: string): Promise<NameDetail | Refusal> {
  const name = parseDomainName(written, { allowPrivateEndings: true });
  if (isRefusal(name)) return name;
  const { database } = deps;
  const id = (await selectNameIds(database, [name.ascii])).get(name.ascii);
  if (id === undefined)
    return refuse('name-not-in-ledger', `${name.unicode} is not in the ledger. Bring it in under Add names.`);
  const [extras, entries, history, visits] = await Promise.all([
    selectNameExtras(database, id),
    selectEntries(database, id),
    selectHistory(database, id),
    selectVisits(database, [id], deps.clock(), VISITS_SHOWN_DAYS),
  ]);
  return {
    id,
    ascii: name.ascii,
    unicode: name.unicode,
    extras: extras as NameExtras,
    entries,
    history,
    visits: visits.get(id) ?? 0,
  };
}
