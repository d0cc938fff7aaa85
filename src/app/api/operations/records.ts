import { isRefusal, refuse } from '@/core/refusal';
import { compute } from '@/usecases/computing';
import { idsOfNames } from '@/usecases/names/ids';
import { checkProgress, drainChecks, queueChecks } from '@/usecases/records/check';
import { type DifferingName, dismissDifferences, takeOver } from '@/usecases/records/compare';
import { type ListedName, type ListedOffer, lookUpList } from '@/usecases/records/list';
import { newestRecords, pasteRecord, recordHistory, seenZone } from '@/usecases/records/records';
import { PastedRecord, SomeDifferences, WatchNames } from '@/usecases/records/requests';
import { fetchBootstrap, RecordServersForm, saveRecordServers } from '@/usecases/records/servers';
import { type LookedUp, lookUp, unwatchName, type WatchRow, watches, watchNames } from '@/usecases/records/watch';
import { textOf } from '../asked';
import { bodyOf, carriedOut, count, done, grounds, said } from '../documents/answers';
import { checks, differing, listedRests, record, records, watch } from '../documents/records';
import { documentOf, from, instant, list, money, orNull, text, yesNo } from '../kinds';
import { type AnyOperation, operation } from '../operation';

export const RECORDS: readonly AnyOperation[] = [
  operation({
    method: 'GET',
    path: '/records/{name}',
    summary: 'The newest registration records of a name, one of each source',
    answer: records,
    run: ({ deps, path }) => newestRecords(deps, (path.name ?? '').toLowerCase()),
  }),
  operation({
    method: 'GET',
    path: '/records/{name}/history',
    summary: 'Every record of a name that differed from the one before it',
    answer: records,
    run: ({ deps, path }) => recordHistory(deps, (path.name ?? '').toLowerCase()),
  }),
  operation({
    method: 'GET',
    path: '/records/{name}/zone',
    summary: 'What hangs on a name now, as a master file (RFC 1035)',
    answer: documentOf<{ text: string }>()({ text }),
    run: ({ deps, path }) => seenZone(deps, (path.name ?? '').toLowerCase()),
  }),
  operation({
    method: 'POST',
    path: '/records',
    summary: 'Keep a record that was seen elsewhere, RDAP or WHOIS',
    body: PastedRecord,
    status: 201,
    answer: said,
    run: ({ deps, body }) => pasteRecord(deps, body),
  }),
  operation({
    method: 'GET',
    path: '/look-up/{name}',
    summary: 'Look a name up at its registry now',
    answer: documentOf<LookedUp>()({
      name: from(({ ascii }: LookedUp) => ascii, text),
      unicode: text,
      record: orNull(record),
      registrarRecord: orNull(record),
      earliestRelease: from(({ release }: LookedUp) => release?.earliest, orNull(instant)),
      latestRelease: from(({ release }: LookedUp) => release?.latest, orNull(instant)),
      problem: orNull(text),
      watched: yesNo,
    }),
    run: ({ deps, path }) => lookUp(deps, path.name ?? ''),
  }),
  operation({
    method: 'POST',
    path: '/look-up',
    summary: 'Look up a list of names; the free ones come with what they cost',
    bodySchema: bodyOf({ text: { type: 'string' } }),
    answer: documentOf<ListedName[]>()({
      names: from(
        (rows: ListedName[]) => rows,
        list(
          documentOf<ListedName>()({
            name: from(({ ascii }: ListedName) => ascii, text),
            record: orNull(record),
            offers: list(
              documentOf<ListedOffer>()({
                account: text,
                first: money,
                condition: orNull(text),
                later: orNull(money),
                twoYears: orNull(money),
              }),
            ),
          }),
        ),
      ),
      restsOn: from(() => listedRests, grounds),
    }),
    run: (asked) => lookUpList(asked.deps, textOf(asked, 'text')),
  }),
  operation({
    method: 'GET',
    path: '/differences',
    summary: 'Names of which a record says something else than the ledger',
    answer: documentOf<DifferingName[]>()({ names: from((rows: DifferingName[]) => rows, list(differing)) }),
    run: ({ deps }) => compute(deps, 'differingNames'),
  }),
  operation({
    method: 'POST',
    path: '/differences/take-over',
    summary: 'Take over what records say',
    body: SomeDifferences,
    answer: done,
    run: ({ deps, body }) => takeOver(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/differences/dismiss',
    summary: 'Leave differences as they are, until they change',
    body: SomeDifferences,
    answer: count,
    run: ({ deps, body }) => dismissDifferences(deps, body),
  }),
  operation({
    method: 'GET',
    path: '/watches',
    summary: 'Names of others that are watched to their release',
    answer: documentOf<WatchRow[]>()({ watches: from((rows: WatchRow[]) => rows, list(watch)) }),
    run: ({ deps }) => watches(deps),
  }),
  operation({
    method: 'POST',
    path: '/watches',
    summary: 'Watch names',
    body: WatchNames,
    status: 201,
    answer: count,
    run: ({ deps, body }) => watchNames(deps, body),
  }),
  operation({
    method: 'DELETE',
    path: '/watches/{name}',
    summary: 'Watch a name no longer',
    answer: carriedOut,
    run: ({ deps, path }) => unwatchName(deps, (path.name ?? '').toLowerCase()),
  }),
  operation({
    method: 'GET',
    path: '/checks',
    summary: 'How far the checking of records is',
    answer: checks,
    run: ({ deps }) => checkProgress(deps),
  }),
  operation({
    method: 'POST',
    path: '/checks',
    summary: 'Put names in line to be checked at their registries',
    bodySchema: bodyOf({ names: { type: 'array', items: { type: 'string' }, minItems: 1, maxItems: 10_000 } }),
    status: 202,
    answer: checks,
    run: async ({ deps, body }) => {
      const names = (body as { names?: unknown } | null)?.names;
      if (!Array.isArray(names) || !names.every((name) => typeof name === 'string'))
        return refuse('request-invalid', 'names is a list of names.', 'names');
      const ids = await idsOfNames(deps, names);
      if (isRefusal(ids)) return ids;
      const queued = await queueChecks(
        deps,
        names.map((name: string) => name.toLowerCase()),
      );
      return isRefusal(queued) ? queued : checkProgress(deps);
    },
    after: (deps) => drainChecks(deps),
  }),
  operation({
    method: 'PUT',
    path: '/record-servers',
    summary: 'Where records are asked for',
    body: RecordServersForm,
    answer: carriedOut,
    run: ({ deps, body }) => saveRecordServers(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/record-servers/bootstrap',
    summary: 'Fetch an RDAP bootstrap file (RFC 9224); answers its date',
    bodySchema: bodyOf({ address: { type: 'string', format: 'uri' } }),
    answer: said,
    run: (asked) => fetchBootstrap(asked.deps, textOf(asked, 'address')),
  }),
];
