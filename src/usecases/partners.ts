import { whileAlone } from '@/database/locks';
import { endPause, type PartnerKind, pausePartner, selectPauses } from '@/database/parts';
import type { Deps } from './deps';
import { causeOf } from './log';

/** Whether partners that did not answer lately are left alone, as the jobs do, or asked all the same, as a person wants it. */
export type Patience = 'with pauses' | 'at once';

/** What a partner is given each time; who takes longer goes on alone, and nobody waits. */
const DEADLINE_MS = 45_000;
const FIRST_PAUSE_S = 60;
const MOST_PAUSE_S = 3600;

/**
 * Works with every partner of one kind, each by itself: one that is slow, away or broken delays none of the others, and is left
 * alone for a while, longer each time. `work` answers what went wrong, in words, or `null`.
 */
export async function eachPartner(
  deps: Deps,
  kind: PartnerKind,
  job: string,
  partnerIds: readonly number[],
  work: (partnerId: number) => Promise<string | null>,
  patience: Patience = 'at once',
  deadlineMs = DEADLINE_MS,
): Promise<void> {
  const pauses = new Map((await selectPauses(deps.database, kind)).map((pause) => [pause.partnerId, pause]));
  const asked = partnerIds.filter((id) => patience === 'at once' || (pauses.get(id)?.waitSeconds ?? 0) === 0);
  const one = async (id: number) => {
    const before = pauses.get(id)?.failures ?? 0;
    const problem = await within(deadlineMs, () =>
      // Still at it since the last time: then it is not begun again beside it.
      whileAlone(deps.database, `${job} of ${kind} ${id}`, () => work(id)),
    ).catch((error: unknown) => {
      deps.log.error({ err: error, job, kind, partner: id }, 'a partner could not be worked with');
      return causeOf(error).message;
    });
    if (problem === null) {
      if (before > 0) await endPause(deps.database, kind, id);
      return;
    }
    const seconds = Math.min(MOST_PAUSE_S, FIRST_PAUSE_S * 2 ** before);
    deps.log.warn({ job, kind, partner: id, seconds }, 'a partner is left alone for a while');
    await pausePartner(deps.database, kind, id, { failures: before + 1, seconds, problem: problem.slice(0, 300) });
  };
  await Promise.all(asked.map(one));
}

/** What `work` comes to, or that it took too long. It is not waited for any longer then, but ends by its own limits. */
async function within(ms: number, work: () => Promise<string | null>): Promise<string | null> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<string>((resolve) => {
    timer = setTimeout(() => resolve(`It took longer than ${ms / 1000} seconds.`), ms);
  });
  try {
    return await Promise.race([work(), late]);
  } finally {
    clearTimeout(timer);
  }
}
