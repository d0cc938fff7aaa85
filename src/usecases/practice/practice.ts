import { type PracticeState, practiceControl, practiceUrl } from '@/connectors/practice/control';
import { type Refusal, refuse } from '@/core/refusal';
import { addDays, formatInstant, type Instant, instant } from '@/core/time';
import { moveClock } from '../clock';
import type { Deps } from '../deps';
import { pollEveryAccount } from '../links/poll';
import { drainChecks } from '../records/check';
import { queueDueChecks } from '../records/schedule';
import { sendReminders } from '../reminders/remind';
import { followSelling } from '../selling/follow';

export type { PracticeState } from '@/connectors/practice/control';

const NO_PRACTICE = refuse('no-practice', 'The practice world runs with the demo only. Start with bin/start --fresh.');

/** Whether a practice world runs beside this program. */
export function hasPractice(): boolean {
  return practiceUrl() !== null;
}

/** How the practice world stands, or that there is none. */
export async function practiceState(): Promise<PracticeState | Refusal> {
  const url = practiceUrl();
  if (!url) return NO_PRACTICE;
  try {
    return await practiceControl(url);
  } catch {
    return refuse('practice-away', 'The practice world does not answer. Stop the program and start it again.');
  }
}

/**
 * Lets one day pass, outside and here: the practice world plays it through, this program's clock follows, and what the
 * registrars have to tell is taken in. Answers the new state.
 */
export async function letDayPass(deps: Deps): Promise<PracticeState | Refusal> {
  const url = practiceUrl();
  if (!url) return NO_PRACTICE;
  const before = await practiceControl(url);
  const to = addDays(Math.max(instant(before.now), deps.clock()) as Instant, 1);
  const state = await practiceControl(url, '/clock', { to: formatInstant(to) });
  await moveClock(deps, to);
  await pollEveryAccount(deps);
  await queueDueChecks(deps);
  await drainChecks(deps);
  await followSelling(deps);
  await sendReminders(deps).catch((error: unknown) => deps.log.warn({ err: error }, 'reminders could not be mailed'));
  return state;
}

/** Switches a fault on at one registrar, for so many more orders; `kind` null switches it off. */
export async function setFault(
  registrar: string,
  kind: string | null,
  times: number,
): Promise<PracticeState | Refusal> {
  const url = practiceUrl();
  if (!url) return NO_PRACTICE;
  return practiceControl(url, '/fault', { registrar, kind, times });
}

/** Confirms the mail address of a name's holder, as the holder would by the link in the registrar's mail. */
export async function confirmHolderMail(deps: Deps, name: string): Promise<PracticeState | Refusal> {
  const url = practiceUrl();
  if (!url) return NO_PRACTICE;
  const state = await practiceControl(url, '/mail-confirmed', { name });
  await pollEveryAccount(deps);
  return state;
}
