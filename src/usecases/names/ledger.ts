import {
  columnsOf,
  indexRules,
  type LedgerColumns,
  type LedgerRules,
  NameTable,
  type Projection,
  packed,
  projectLedger,
} from '@/core/ledger';
import { formatInstant, HOUR_MS } from '@/core/time';
import { countAcquiring } from '@/database/approaches';
import { selectChangedNames, selectLedgerRules, selectRevision, selectState } from '@/database/ledger';
import { selectLedgerColumns } from '@/database/ledgerColumns';
import { selectTags } from '@/database/names';
import { countAwaiting } from '@/database/offers';
import type { Database } from '@/database/pool';
import { countOpenRenewals } from '@/database/renewals';
import { countTransfersWaiting } from '@/database/transfers';
import type { Deps } from '../deps';
import { knownNames } from './knownNames';

/** The number of the ledger's present state; it rises with every change. */
export function ledgerRevision(deps: Deps): Promise<number> {
  return selectRevision(deps.database);
}

const VERSION_DOT = '.';

/** Names the ledger's present state: it differs after every change, and from one hour to the next, since today moves on. */
export async function ledgerVersion(deps: Deps): Promise<string> {
  const { ledger, revision, clockOffsetMs } = await selectState(deps.database);
  deps.time.offsetMs = clockOffsetMs;
  return [ledger, revision, Math.floor(deps.clock() / HOUR_MS)].join(VERSION_DOT);
}

/** What a window is told of the ledger: its names, the rules they are read by, and what waits elsewhere. */
export interface LedgerBody {
  readonly revision: number;
  /** RFC 3339. */
  readonly asOf: string;
  readonly rules: LedgerRules;
  readonly names: LedgerColumns;
  /** `names` are only those of these ids, as they are now: the others are as they were, and of these those are gone that `names` lacks. */
  readonly changed: readonly number[] | null;
  readonly openRenewals: number;
  readonly selling: number;
  readonly transfers: number;
  readonly acquiring: number;
}

/** The ledger for a browser's worker: a `LedgerBody`, packed. Only what has changed since a version of it, where that is still known. */
export async function ledgerBytes(deps: Deps, since: string | null = null): Promise<Uint8Array> {
  const { ledger, revision, names } = await knownNames(deps);
  const [known, number] = since?.split(VERSION_DOT) ?? [];
  const from = known === ledger && /^\d{1,15}$/.test(number ?? '') ? Number(number) : null;
  const changed = from === null ? null : await selectChangedNames(deps.database, from);
  const [rules, openRenewals, selling, transfers, acquiring] = await Promise.all([
    selectLedgerRules(deps.database),
    countOpenRenewals(deps.database),
    countAwaiting(deps.database, deps.clock()),
    countTransfersWaiting(deps.database),
    countAcquiring(deps.database, deps.clock()),
  ]);
  const told = changed === null ? names.columns : columnsOf(names.those(changed));
  const asOf = formatInstant(deps.clock());
  const body: LedgerBody = { revision, asOf, rules, names: told, changed, openRenewals, selling, transfers, acquiring };
  return packed(body);
}

/**
 * The ledger played forward from now, for queries that are answered on the server. With `nameIds` only those names are read:
 * enough for phases and costs, not for which charges will find money.
 */
export async function projectedLedger(deps: Deps, nameIds: readonly number[] | null = null): Promise<Projection> {
  return nameIds === null ? wholeProjection(deps) : project(deps, nameIds);
}

/** How long a projection is kept after it was last asked for: long enough for those who ask together, no longer than that. */
const KEPT_MS = 30_000;

interface KeptProjection {
  readonly version: string;
  readonly projection: Promise<Projection>;
  readonly drop: NodeJS.Timeout;
  isMaking: boolean;
}

const kept = new WeakMap<Database, KeptProjection>();

/** The projection of the whole ledger is made once for each state of it, however many ask; `asOf` is of the present hour. */
async function wholeProjection(deps: Deps): Promise<Projection> {
  const { database } = deps;
  for (;;) {
    const version = await ledgerVersion(deps);
    const known = kept.get(database);
    if (known?.version === version) {
      known.drop.refresh();
      return known.projection;
    }
    if (!known?.isMaking) return keepProjection(deps, version);
    // One at a time: whoever comes while an earlier state is played forward waits for the next, and shares it.
    await known.projection.catch(() => undefined);
  }
}

function keepProjection(deps: Deps, version: string): Promise<Projection> {
  const { database } = deps;
  const known = kept.get(database);
  if (known) clearTimeout(known.drop);
  const drop = setTimeout(() => kept.delete(database), KEPT_MS).unref();
  const mine = { version, projection: project(deps, null), drop, isMaking: true };
  kept.set(database, mine);
  mine.projection.then(
    () => {
      mine.isMaking = false;
    },
    // What failed is not kept: the next one tries again.
    () => kept.get(database) === mine && kept.delete(database),
  );
  return mine.projection;
}

async function project(deps: Deps, nameIds: readonly number[] | null): Promise<Projection> {
  const [rules, names] = await Promise.all([
    selectLedgerRules(deps.database),
    nameIds === null
      ? knownNames(deps).then((known) => known.names)
      : selectLedgerColumns(deps.database, nameIds).then((columns) => new NameTable(columns)),
  ]);
  return projectLedger(indexRules(rules), names, deps.clock());
}

/** Accounts, endings and tags that the ledger can be filtered by, and the rules it is read by. */
export async function ledgerChoices(deps: Deps): Promise<{ rules: LedgerRules; tags: string[] }> {
  const [rules, tags] = await Promise.all([selectLedgerRules(deps.database), selectTags(deps.database)]);
  return { rules, tags };
}
