import pLimit from 'p-limit';
import type { RegistrarLink } from '@/connectors/registrar/port';
import { actingAs } from '@/database/acting';
import { whileAlone } from '@/database/locks';
import { selectRenewal } from '@/database/renewals';
import { confirmSettledRun, moveItems, type RunItem, selectOpenItems, selectOpenRuns } from '@/database/runs';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { linkOf } from '../links/links';
import { itself } from '../people/command';
import { RENEWING } from './renewing';
import { REQUESTING, reportingFor } from './restoring';
import { takeStep } from './step';

/** What a pass over a run came to. `left`: items that could not be settled now and are tried again later. */
export interface RunResult {
  readonly settled: number;
  readonly left: number;
}

/**
 * Renews or restores every name of a run that was started, at the accounts that have a link. Safe to call again after a crash at any
 * moment: what is settled is skipped, and what may have been sent is first looked up at the registrar (guarded resend).
 * Answers `null` while another process is at it.
 */
export const carryOutRun = itself(async (deps: Deps, renewalId: string): Promise<RunResult | null> => {
  // What is booked for a run stands under the name of whoever has started it.
  const renewal = await selectRenewal(deps.database, renewalId);
  const work = () => carryOutAlone(deps, renewalId);
  return renewal?.person == null ? work() : actingAs(renewal.person, work);
});

function carryOutAlone(deps: Deps, renewalId: string): Promise<RunResult | null> {
  return whileAlone(deps.database, `run ${renewalId}`, async () => {
    const items = await selectOpenItems(deps.database, renewalId);
    const accountIds = [...new Set(items.map((item) => item.accountId))];
    const results = await Promise.all(
      accountIds.map((id) =>
        carryOutAtAccount(
          deps,
          id,
          items.filter((item) => item.accountId === id),
        ),
      ),
    );
    await changing(deps, async (tx) => {
      await confirmSettledRun(tx, renewalId, deps.clock());
    });
    const settled = results.reduce((sum, count) => sum + count, 0);
    return { settled, left: items.length - settled };
  });
}

/** Carries on every run that has items on their way: after a start, and from time to time. */
export async function carryOnRuns(deps: Deps): Promise<void> {
  const turn = pLimit(RUNS_AT_ONCE);
  const open = await selectOpenRuns(deps.database);
  // One run that cannot go on leaves the others alone, and is told when they are through.
  const ends = await Promise.allSettled(open.map((id) => turn(() => carryOutRun(deps, id))));
  const failed = ends.flatMap((end) => (end.status === 'rejected' ? [end.reason as unknown] : []));
  if (failed.length > 0) throw new AggregateError(failed, `${failed.length} of ${open.length} runs could not go on`);
}

/** So many runs go on beside each other: one that waits for a slow registrar holds up none of the rest. */
const RUNS_AT_ONCE = 4;

/** So many names of an account are looked up, sent and booked together: a crash leaves no more than these to look up again. */
const GROUP = 25;

/** One account's items, a group after the other. Ends early when the registrar cannot be reached: the rest would fare the same. */
async function carryOutAtAccount(deps: Deps, accountId: number, items: readonly RunItem[]): Promise<number> {
  const link = await linkOf(deps, accountId);
  if (!link) {
    const problem = 'This account has no link that works.';
    await moveItems(
      deps.database,
      items.map((item) => ({ ...item, problem })),
    );
    return 0;
  }
  let settled = 0;
  for (let start = 0; start < items.length; start += GROUP) {
    const went = await carryOutGroup(deps, link, items.slice(start, start + GROUP));
    settled += went.settled;
    if (went.unreachable) break;
  }
  return settled;
}

async function carryOutGroup(
  deps: Deps,
  link: RegistrarLink,
  items: readonly RunItem[],
): Promise<{ settled: number; unreachable: boolean }> {
  if (items[0]?.action === 'renew') {
    const renewed = await takeStep(deps, link, RENEWING, items);
    return { settled: renewed.done.length + renewed.settled, unreachable: renewed.unreachable };
  }
  const paidAlready = items.filter((item) => item.state === 'reporting');
  const requested = await takeStep(
    deps,
    link,
    REQUESTING,
    items.filter((item) => item.state !== 'reporting'),
  );
  const paid = requested.done.map(({ item }) => ({ ...item, state: 'reporting' as const }));
  const reporting = await reportingFor(deps, [...paidAlready, ...paid]);
  const reported = await takeStep(deps, link, reporting, [...paidAlready, ...paid]);
  return {
    settled: requested.settled + reported.done.length + reported.settled,
    unreachable: requested.unreachable || reported.unreachable,
  };
}
