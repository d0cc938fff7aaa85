import { type DomainName, parseDomainName } from '@/core/names';
import type { RegistrationRecord, Release } from '@/core/records';
import { isRefusal, type Refusal } from '@/core/refusal';
import { addDays } from '@/core/time';
import { selectNewestRecords } from '@/database/records';
import { deleteWatch, insertWatches, selectWatches, type WatchRow } from '@/database/watches';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { readRequest } from '../validate';
import { checkNow } from './check';
import { WatchNames } from './requests';
import { noteWatched, releaseFor } from './watched';

export type { WatchRow } from '@/database/watches';

/** What is known of any name, whoever holds it, and when it may come free. */
export interface LookedUp {
  readonly ascii: string;
  readonly unicode: string;
  readonly record: RegistrationRecord | null;
  readonly registrarRecord: RegistrationRecord | null;
  readonly release: Release | null;
  /** What went wrong when its record was asked for. */
  readonly problem: string | null;
  readonly watched: boolean;
}

/** Looks a name up at its registry now: free or taken, by whom, until when, and when it may come free. */
export async function lookUp(deps: Deps, written: string): Promise<LookedUp | Refusal> {
  const name = parseDomainName(written);
  if (isRefusal(name)) return name;
  const problem = await checkNow(deps, name.ascii);
  const [records, watches, release] = await Promise.all([
    selectNewestRecords(deps.database, [name.ascii]),
    selectWatches(deps.database, [name.ascii]),
    releaseFor(deps, name.ascii, name.ending),
  ]);
  const of = (source: string) => records.find((one) => one.source === source)?.record ?? null;
  return {
    ascii: name.ascii,
    unicode: name.unicode,
    record: of('registry') ?? of('pasted'),
    registrarRecord: of('registrar'),
    release,
    problem,
    watched: watches.length > 0,
  };
}

/** Watches names from now on. Answers how many; one that is no name refuses them all. */
export const watchNames = command('watchNames', async (deps: Deps, input: unknown): Promise<number | Refusal> => {
  const request = await readRequest(WatchNames, input);
  if (isRefusal(request)) return request;
  const known: DomainName[] = [];
  for (const written of request.names) {
    const name = parseDomainName(written);
    if (isRefusal(name)) return name;
    known.push(name);
  }
  await insertWatches(
    deps.database,
    known.map(({ ascii, unicode, ending }) => ({ ascii, unicode, ending, note: request.note ?? '' })),
    deps.clock(),
  );
  await noteWatched(
    deps,
    known.map(({ ascii }) => ascii),
  );
  return new Set(known.map(({ ascii }) => ascii)).size;
});

export const unwatchName = command('unwatchName', async (deps: Deps, ascii: string): Promise<true> => {
  await changing(deps, (tx) => deleteWatch(tx, ascii));
  return true;
});

/** Every watched name, those that come free first. */
export function watches(deps: Deps): Promise<WatchRow[]> {
  return selectWatches(deps.database, null);
}

const SOON_DAYS = 14;

/** Watched names that are worth a look today: free, soon to be, or changed since yesterday. */
export async function watchesToday(deps: Deps): Promise<WatchRow[]> {
  const now = deps.clock();
  return (await watches(deps)).filter(
    ({ isFree, earliest, changedAt }) =>
      isFree ||
      (earliest !== null && earliest < addDays(now, SOON_DAYS)) ||
      (changedAt !== null && changedAt > addDays(now, -1)),
  );
}
