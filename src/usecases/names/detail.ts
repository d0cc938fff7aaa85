import { parseDomainName } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { type HistoryRow, selectHistory } from '@/database/changes';
import { type EntryRow, selectEntries } from '@/database/entries';
import { type NameExtras, selectNameExtras, selectNameIds } from '@/database/names';
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
}

/** Money, history and the rest of one name, however it is written. */
export async function nameDetail(deps: Deps, written: string): Promise<NameDetail | Refusal> {
  const name = parseDomainName(written, { allowPrivateEndings: true });
  if (isRefusal(name)) return name;
  const { database } = deps;
  const id = (await selectNameIds(database, [name.ascii])).get(name.ascii);
  if (id === undefined)
    return refuse('name-not-in-ledger', `${name.unicode} is not in the ledger. Bring it in under Add names.`);
  const [extras, entries, history] = await Promise.all([
    selectNameExtras(database, id),
    selectEntries(database, id),
    selectHistory(database, id),
  ]);
  return { id, ascii: name.ascii, unicode: name.unicode, extras: extras as NameExtras, entries, history };
}
