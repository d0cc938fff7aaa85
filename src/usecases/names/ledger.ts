import {
  columnsOf,
  indexRules,
  type LedgerColumns,
  type LedgerRules,
  NameTable,
  type Projection,
  projectedInSteps,
  projectLedger,
  replayLedger,
  todayInSteps,
} from '@/core/ledger';
import type { Steps } from '@/core/steps';
import { packed } from '@/core/table';
import { formatInstant, HOUR_MS, type Instant } from '@/core/time';
import { countAcquiring } from '@/database/approaches';
import {
  type LedgerState,
  selectChangedNames,
  selectLedgerRules,
  selectRevision,
  selectState,
} from '@/database/ledger';
import { selectLedgerColumns } from '@/database/ledgerColumns';
import { selectTags } from '@/database/names';
import { countAwaiting } from '@/database/offers';
import type { Database } from '@/database/pool';
import { countOpenRenewals } from '@/database/renewals';
import { countTransfersWaiting } from '@/database/transfers';
import type { Deps } from '../deps';
import { KEPT_MS, type KnownNames, knownNames } from './knownNames';

/** The number of the ledger's present state; it rises with every change. */
export function ledgerRevision(deps: Deps): Promise<number> {
  return selectRevision(deps.database);
}

const VERSION_DOT = '.';

/** Names a state of the ledger, as it is seen in the present hour: today moves on. */
const versionOf = (deps: Deps, ledger: string, revision: number): string =>
  [ledger, revision, hourOf(deps.clock())].join(VERSION_DOT);
const hourOf = (at: Instant): number => Math.floor(at / HOUR_MS);

/** Names the ledger's present state: it differs after every change, and from one hour to the next. */
export async function ledgerVersion(deps: Deps): Promise<string> {
  const { ledger, revision } = await stateNow(deps);
  return versionOf(deps, ledger, revision);
}

/** The state that whoever asks is answered of. */
export interface ShownState {
  /** Names it, as `ledgerVersion` does. */
  readonly version: string;
  /** Very many names are being read: it is the state before them, and a later one can be asked for soon. */
  readonly isBehind: boolean;
}

/** Asked where requests are answered it is the thread that says so: there the ledger is kept. */
export async function shownState(deps: Deps): Promise<ShownState> {
  const state = await stateNow(deps);
  const { ledger, revision, told } = state;
  if (told < revision && deps.thread) return (await deps.thread.run('shownState', [], {})) as ShownState;
  const earlier = earlierState(deps, state);
  return { version: versionOf(deps, ledger, earlier?.revision ?? revision), isBehind: earlier !== null };
}

/** The present state, by the clock of now. */
async function stateNow(deps: Deps): Promise<LedgerState> {
  const state = await selectState(deps.database);
  deps.time.offsetMs = state.clockOffsetMs;
  return state;
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
  const earlier = earlierState(deps, await stateNow(deps));
  const { ledger, revision, names } = earlier
    ? { ...earlier, names: earlier.projection.names }
    : await knownNames(deps);
  const [known, number] = since?.split(VERSION_DOT) ?? [];
  const from = known === ledger && /^\d{1,15}$/.test(number ?? '') ? Number(number) : null;
  const hasIt = earlier !== null && from === revision;
  const changed = hasIt ? [] : from === null ? null : await selectChangedNames(deps.database, from);
  const [rules, openRenewals, selling, transfers, acquiring] = await Promise.all([
    selectLedgerRules(deps.database),
    countOpenRenewals(deps.database),
    countAwaiting(deps.database, deps.clock()),
    countTransfersWaiting(deps.database),
    countAcquiring(deps.database, deps.clock()),
  ]);
  const body: LedgerBody = {
    revision,
    asOf: formatInstant(deps.clock()),
    rules,
    names: changed === null ? names.columns : columnsOf(names.those(changed)),
    changed,
    openRenewals,
    selling,
    transfers,
    acquiring,
  };
  return packed(body);
}

/**
 * The ledger played forward from now, for queries that are answered on the server. With `nameIds` only those names are read:
 * enough for phases and costs, not for which charges will find money.
 */
export async function projectedLedger(deps: Deps, nameIds: readonly number[] | null = null): Promise<Projection> {
  return nameIds === null ? wholeProjection(deps) : project(deps, nameIds);
}

/** A ledger played forward, and which state of it. */
interface Played extends Pick<KnownNames, 'ledger' | 'revision'> {
  readonly projection: Projection;
}

interface KeptProjection {
  readonly version: string;
  readonly played: Promise<Played>;
  readonly drop: NodeJS.Timeout;
  /** What was there last: this one once it is made, until then what was before it. */
  last: Played | null;
  isMaking: boolean;
}

const kept = new WeakMap<Database, KeptProjection>();

/** The state that may be shown before the present one has been read, which is begun; `null` where the present one is to be waited for. */
function earlierState(deps: Deps, { ledger, revision, told }: LedgerState): Played | null {
  const known = kept.get(deps.database);
  const last = known?.last;
  if (!last || last.ledger !== ledger || last.revision >= revision || last.revision < told) return null;
  if (hourOf(last.projection.asOf) !== hourOf(deps.clock())) return null;
  if (!known.isMaking)
    keepProjection(deps, versionOf(deps, ledger, revision)).played.catch((error: unknown) =>
      deps.log.error({ err: error }, 'the ledger could not be read after a change of many names'),
    );
  return last;
}

/** The whole ledger as it may be shown. See `earlierState`. */
async function wholeProjection(deps: Deps): Promise<Projection> {
  const now = await stateNow(deps);
  return (earlierState(deps, now) ?? (await presentState(deps, now))).projection;
}

/** Reads the ledger as it is now, and plays it forward, for whoever asks next. Answers its number. */
export async function readAnew(deps: Deps): Promise<number> {
  return (await presentState(deps, await stateNow(deps))).revision;
}

/** Goes through steps, between which is answered whoever has asked meanwhile: very many names take seconds. */
async function amongOthers<T>(steps: Steps<T>): Promise<T> {
  for (;;) {
    await new Promise<void>((goOn) => setImmediate(goOn));
    const step = steps.next();
    if (step.done) return step.value;
  }
}

/** The whole ledger as it is now: played forward once for each state of it, however many ask; `asOf` is of the present hour. */
async function presentState(deps: Deps, now: LedgerState): Promise<Played> {
  const { database } = deps;
  for (let { ledger, revision } = now; ; { ledger, revision } = await stateNow(deps)) {
    const version = versionOf(deps, ledger, revision);
    const known = kept.get(database);
    if (known?.version === version) {
      known.drop.refresh();
      return known.played;
    }
    if (!known?.isMaking) return keepProjection(deps, version).played;
    // One at a time: whoever comes while an earlier state is played forward waits for the next, and shares it.
    await known.played.catch(() => undefined);
  }
}

function keepProjection(deps: Deps, version: string): KeptProjection {
  const { database } = deps;
  const known = kept.get(database);
  if (known) clearTimeout(known.drop);
  const drop = setTimeout(() => kept.delete(database), KEPT_MS).unref();
  const played = playOn(deps, known?.played);
  const mine: KeptProjection = { version, played, drop, last: known?.last ?? null, isMaking: true };
  kept.set(database, mine);
  played.then(
    (done) => {
      mine.last = done;
      mine.isMaking = false;
    },
    // What failed is not kept: the next one tries again.
    () => kept.get(database) === mine && kept.delete(database),
  );
  return mine;
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
      : await amongOthers(projectedInSteps(index, names, asOf));
  // Whoever asks for names looks at today first.
  if (!projection.since) await amongOthers(todayInSteps(projection));
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
