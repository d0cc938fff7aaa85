import { seenOf } from '@/core/moving';
import { formatInstant, type Instant } from '@/core/time';
import { endForeign, noteForeign, selectPendingInRecords } from '@/database/foreignTransfers';
import { whileAlone } from '@/database/locks';
import type { Transaction } from '@/database/pool';
import {
  enqueueChecks,
  noteChecked,
  type StoredRecord,
  selectNewestRecords,
  selectQueue,
  selectWaiting,
  settleChecks,
  storeRecords,
  touchRecords,
} from '@/database/records';
import { selectSettings } from '@/database/settings';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command, itself } from '../people/command';
import { type Asked, askRecords } from './ask';
import { takeRenewed } from './compare';
import { RateLimiter } from './rateLimiter';
import { noteWatched } from './watched';

/** How the checking goes. */
export interface CheckProgress {
  readonly waiting: number;
  readonly problems: readonly { readonly ascii: string; readonly problem: string }[];
  /** Names in the ledger, those of which a record has been read, and when the oldest of these reads was. */
  readonly names: number;
  readonly asked: number;
  readonly oldestAt: Instant | null;
  /** The names that were asked about last. */
  readonly recent: readonly string[];
}

export function checkProgress(deps: Deps): Promise<CheckProgress> {
  return selectQueue(deps.database);
}

/** Puts names in line to be checked against the registration record. Answers how many. */
export const queueChecks = command('queueChecks', (deps: Deps, ascii: readonly string[]): Promise<number> => {
  return enqueueChecks(deps.database, ascii, deps.clock());
});

const GROUP = 50;
/** A name whose server gives no usable answer is tried again after so long, more each time. */
const AGAIN_S = 300;
const MOST_TRIES = 4;

/**
 * Checks the names that wait, group by group, until none is left or `most` are done. Safe to call again at any moment: what was
 * not settled still waits. Answers how many were checked; `null` while another process is at it.
 */
export const drainChecks = itself(
  (
    deps: Deps,
    most: number = Number.POSITIVE_INFINITY,
    rateLimiter: RateLimiter = new RateLimiter(),
  ): Promise<number | null> => {
    return whileAlone(deps.database, 'record checks', async () => {
      const { records: servers } = await selectSettings(deps.database);
      let done = 0;
      while (done < most) {
        const group = await selectWaiting(deps.database, deps.clock(), Math.min(GROUP, most - done));
        if (group.length === 0) break;
        const known = byName(
          await selectNewestRecords(
            deps.database,
            group.map(({ ascii }) => ascii),
          ),
        );
        const asked = await Promise.all(
          group.map(async ({ ascii, tries }) => ({
            ascii,
            tries,
            known: known.get(ascii) ?? [],
            asked: await askSafely(deps, servers, rateLimiter, ascii, known.get(ascii) ?? []),
          })),
        );
        await settle(deps, asked);
        done += group.length;
      }
      return done;
    });
  },
);

/** One name whose records cannot be read ends for itself, with its reason; the others go on. */
async function askSafely(deps: Deps, ...question: Parameters<typeof askRecords>): Promise<Asked> {
  try {
    return await askRecords(...question);
  } catch (error) {
    deps.log.error({ err: error }, 'a record could not be read');
    return { kind: 'failed', problem: 'Its record could not be read. The log has the cause.' };
  }
}

function byName(records: readonly StoredRecord[]): Map<string, StoredRecord[]> {
  const map = new Map<string, StoredRecord[]>();
  for (const record of records) map.set(record.ascii, [...(map.get(record.ascii) ?? []), record]);
  return map;
}

interface AskedName {
  readonly ascii: string;
  readonly tries: number;
  readonly known: readonly StoredRecord[];
  readonly asked: Asked;
}

async function settle(deps: Deps, names: readonly AskedName[]): Promise<void> {
  const at = deps.clock();
  const seen = names.flatMap((one) => (one.asked.kind === 'seen' ? [{ ...one, asked: one.asked }] : []));
  const drafts = seen.flatMap(({ asked }) => asked.drafts);
  await changing(deps, async (tx) => {
    if (drafts.length > 0) await storeRecords(tx, drafts, at);
    const unchanged = seen.flatMap(({ asked }) => asked.unchanged);
    if (unchanged.length > 0) await touchRecords(tx, unchanged, at);
    await noteChecked(
      tx,
      seen.map(({ ascii, asked, known }) => {
        const again = known.filter(({ id }) => asked.unchanged.includes(id));
        return seenOf(
          ascii,
          [...asked.drafts, ...again].map(({ record }) => record),
        );
      }),
      at,
    );
    await noteTransfersSeen(
      tx,
      seen.map(({ ascii }) => ascii),
      at,
    );
    const given = names.flatMap(({ ascii, tries, asked }) =>
      asked.kind === 'seen' || (asked.kind === 'failed' && tries + 1 >= MOST_TRIES) ? [ascii] : [],
    );
    const later = names.flatMap(({ ascii, tries, asked }) => {
      if (asked.kind === 'seen' || given.includes(ascii)) return [];
      const seconds = asked.kind === 'later' ? asked.seconds : AGAIN_S * 2 ** tries;
      return [{ ascii, notBefore: formatInstant((at + seconds * 1000) as Instant), problem: asked.problem }];
    });
    await settleChecks(tx, given, later);
  });
  const told = seen.filter(({ asked }) => asked.drafts.some(({ record }) => record.found && record.expires !== null));
  await takeRenewed(
    deps,
    told.map(({ ascii }) => ascii),
  );
  await noteWatched(
    deps,
    seen.map(({ ascii }) => ascii),
  );
}

/** A transfer that a record shows pending and nobody here asked for is an alarm; one that it no longer shows is over. */
async function noteTransfersSeen(tx: Transaction, ascii: readonly string[], at: Instant): Promise<void> {
  const looked = await selectPendingInRecords(tx, ascii);
  const ids = (pending: boolean) => looked.flatMap((one) => (one.pending === pending ? [one.nameId] : []));
  await noteForeign(
    tx,
    ids(true).map((nameId) => ({ nameId, requestedBy: null, actsBy: null })),
    'record',
    at,
  );
  await endForeign(tx, ids(false), at);
}

/** Checks one name now, out of turn. Answers what is wrong, or `null` when its record was seen. */
export async function checkNow(deps: Deps, ascii: string): Promise<string | null> {
  const { records: servers } = await selectSettings(deps.database);
  const known = await selectNewestRecords(deps.database, [ascii]);
  const asked = await askSafely(deps, servers, new RateLimiter(), ascii, known);
  await settle(deps, [{ ascii, tries: 0, known, asked }]);
  return asked.kind === 'seen' ? null : asked.problem;
}
