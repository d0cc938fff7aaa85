import {
  columnsOf,
  indexRules,
  type LedgerColumns,
  type LedgerRules,
  NameTable,
  type Projection,
  projectLedger,
  replayLedger,
} from '@/core/ledger';
import { packed } from '@/core/table';
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
import { type KnownNames, knownNames } from './knownNames';

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

/** A ledger played forward, and the number that it had then. */
interface Played extends Pick<KnownNames, 'ledger' | 'revision'> {
  readonly projection: Projection;
}

interface KeptProjection {
  readonly version: string;
  readonly played: Promise<Played>;
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
      return (await known.played).projection;
    }
    if (!known?.isMaking) return (await keepProjection(deps, version)).projection;
    // One at a time: whoever comes while an earlier state is played forward waits for the next, and shares it.
    await known.played.catch(() => undefined);
  }
}

function keepProjection(deps: Deps, version: string): Promise<Played> {
  const { database } = deps;
  const known = kept.get(database);
  if (known) clearTimeout(known.drop);
  const drop = setTimeout(() => kept.delete(database), KEPT_MS).unref();
  const mine = { version, played: playOn(deps, known?.played), drop, isMaking: true };
  kept.set(database, mine);
  mine.played.then(
    () => {
      mine.isMaking = false;
    },
    // What failed is not kept: the next one tries again.
    () => kept.get(database) === mine && kept.delete(database),
  );
  return mine.played;
}

/** Plays the whole ledger forward: on from an earlier state of it where one is there, and else from the start. */
async function playOn(deps: Deps, earlier: Promise<Played> | undefined): Promise<Played> {
  const before = await earlier?.catch(() => null);
  const [rules, { ledger, revision, names }] = await Promise.all([selectLedgerRules(deps.database), knownNames(deps)]);
  // Asked for after the names were read: among these is every one that is not as it was.
  const changed = before?.ledger === ledger ? await selectChangedNames(deps.database, before.revision) : null;
  const [index, asOf] = [indexRules(rules), deps.clock()];
  const projection =
    before && changed
      ? replayLedger(before.projection, index, names, changed, asOf)
      : projectLedger(index, names, asOf);
  return { ledger, revision, projection };
}

async function project(deps: Deps, nameIds: readonly number[]): Promise<Projection> {
  const [rules, columns] = await Promise.all([
    selectLedgerRules(deps.database),
    selectLedgerColumns(deps.database, nameIds),
  ]);
  return projectLedger(indexRules(rules), new NameTable(columns), deps.clock());
}

/** Accounts, endings and tags that the ledger can be filtered by, and the rules it is read by. */
export async function ledgerChoices(deps: Deps): Promise<{ rules: LedgerRules; tags: string[] }> {
  const [rules, tags] = await Promise.all([selectLedgerRules(deps.database), selectTags(deps.database)]);
  return { rules, tags };
}
