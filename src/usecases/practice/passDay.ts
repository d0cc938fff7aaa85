import { practiceControl } from '@/connectors/practice/control';
import { addDays, formatInstant, type Instant, instant } from '@/core/time';
import { moveClock } from '../clock';
import type { Deps } from '../deps';
import { pollEveryAccount } from '../links/poll';
import { followTransfers } from '../moving/follow';
import { drainChecks } from '../records/check';
import { type RateLimit, RateLimiter } from '../records/rateLimiter';
import { queueDueChecks } from '../records/schedule';
import { sendReminders } from '../reminders/remind';
import { followSelling } from '../selling/follow';

/** The practice world serves nobody else: none of its hosts need be spared. */
const UNSPARED: RateLimit = { atOnce: 8, gapMs: 0 };

/**
 * Plays one day through: the practice world at `url` does, the office's clock follows, and what the outside has to tell is
 * taken in, as the jobs would have done it in the course of the day.
 */
export async function passDay(deps: Deps, url: string): Promise<void> {
  const before = await practiceControl(url);
  const to = addDays(Math.max(instant(before.now), deps.clock()) as Instant, 1);
  await practiceControl(url, '/clock', { to: formatInstant(to) });
  await moveClock(deps, to);
  await pollEveryAccount(deps);
  await queueDueChecks(deps);
  await drainChecks(deps, Number.POSITIVE_INFINITY, new RateLimiter(UNSPARED));
  await followSelling(deps);
  await followTransfers(deps);
  await sendReminders(deps).catch((error: unknown) => deps.log.warn({ err: error }, 'reminders could not be mailed'));
}
