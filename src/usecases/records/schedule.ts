import { todayOf } from '@/core/ledger';
import { DAY_MS, type Instant } from '@/core/time';
import { enqueueChecks } from '@/database/records';
import { selectSettings } from '@/database/settings';
import { selectWatches } from '@/database/watches';
import type { Deps } from '../deps';
import { projectedLedger } from '../names/ledger';

/** How often a name is checked by itself: days between two checks, by how near its deadline is. */
export function checkEveryDays(daysToDeadline: number | null): number {
  if (daysToDeadline === null) return 14;
  if (daysToDeadline <= 7) return 1;
  return daysToDeadline <= 60 ? 3 : 14;
}

/** Puts the names in line whose turn it is: own names the oftener the nearer their deadline, watched names every day. */
export async function queueDueChecks(deps: Deps): Promise<number> {
  const { records } = await selectSettings(deps.database);
  if (records.bootstrap === null && Object.keys(records.whois).length === 0) return 0;
  const projection = await projectedLedger(deps);
  const { asOf } = projection;
  const { names } = projection;
  const { deadlineAt } = todayOf(projection);
  const isDue = (checkedAt: Instant | null, every: number) => checkedAt === null || checkedAt + every * DAY_MS <= asOf;
  const own: string[] = [];
  for (let place = 0; place < names.length; place += 1) {
    const at = deadlineAt[place] as number;
    const every = checkEveryDays(Number.isFinite(at) ? (at - asOf) / DAY_MS : null);
    if (isDue(names.checkedAt(place), every)) own.push(names.ascii(place));
  }
  const watched = (await selectWatches(deps.database, null)).flatMap(({ ascii, checkedAt }) =>
    isDue(checkedAt, 1) ? [ascii] : [],
  );
  return enqueueChecks(deps.database, [...own, ...watched], asOf);
}
