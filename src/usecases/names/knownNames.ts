import { mergeColumns, NameTable } from '@/core/ledger';
import { selectChangedNames, selectState } from '@/database/ledger';
import { selectLedgerColumns } from '@/database/ledgerColumns';
import type { Database } from '@/database/pool';
import type { Deps } from '../deps';

/** The names of one ledger as they were at one of its numbers. */
export interface KnownNames {
  readonly ledger: string;
  readonly revision: number;
  readonly names: NameTable;
}

/** How long they are kept after they were last asked for, and what was played forward from them. */
export const KEPT_MS = 15 * 60_000;

interface Kept {
  known: KnownNames | null;
  /** One reads at a time; whoever comes meanwhile waits, and shares what was read or reads on from there. */
  reading: Promise<unknown>;
  drop: NodeJS.Timeout | null;
}

const kept = new WeakMap<Database, Kept>();

/**
 * The names of the whole ledger as they are now: read once, and then only what has changed since. Each process keeps its own, right by the
 * ledger's number.
 */
export function knownNames({ database }: Pick<Deps, 'database'>): Promise<KnownNames> {
  const mine = kept.get(database) ?? { known: null, reading: Promise.resolve(), drop: null };
  kept.set(database, mine);
  const reading = mine.reading.then(() => upToNow(database, mine.known));
  // What could not be read is asked for again by the next.
  mine.reading = reading.then(
    (known) => {
      mine.known = known;
    },
    () => undefined,
  );
  if (mine.drop) clearTimeout(mine.drop);
  mine.drop = setTimeout(() => kept.delete(database), KEPT_MS).unref();
  return reading;
}

async function upToNow(database: Database, known: KnownNames | null): Promise<KnownNames> {
  const { ledger, revision } = await selectState(database);
  const isSame = known?.ledger === ledger;
  if (isSame && known.revision === revision) return known;
  const ids = isSame ? await selectChangedNames(database, known.revision) : null;
  if (!isSame || ids === null) return { ledger, revision, names: new NameTable(await selectLedgerColumns(database)) };
  if (ids.length === 0) return { ...known, revision };
  const fresh = new NameTable(await selectLedgerColumns(database, ids));
  return { ledger, revision, names: new NameTable(mergeColumns(known.names, fresh, new Set(ids)), known.names) };
}
