import { addDays, type Instant } from '@/core/time';
import { selectApproaches } from '@/database/approaches';
import { selectOpenRegistrations } from '@/database/registrations';
import { selectReleaseOrders } from '@/database/releaseOrders';
import type { Deps } from '../deps';

/** Something that acquiring wants of a person, or news of it. */
export interface AcquiringItem {
  readonly ascii: string;
  readonly unicode: string;
  readonly what:
    | 'to register by hand'
    | 'in doubt'
    | 'answer overdue'
    | 'to pay'
    | 'to arrive'
    | 'being tried'
    | 'got'
    | 'lost';
  readonly since: Instant;
  readonly href: string;
}

/** News of an order is told for so many days. */
const NEWS_DAYS = 3;

/** What acquiring wants of a person today: what waits first, then the news. */
export async function acquiringToday(deps: Deps): Promise<AcquiringItem[]> {
  const now = deps.clock();
  const [registrations, threads, orders] = await Promise.all([
    selectOpenRegistrations(deps.database),
    selectApproaches(deps.database),
    selectReleaseOrders(deps.database),
  ]);
  const item = (
    { ascii, unicode, since }: Pick<AcquiringItem, 'ascii' | 'unicode' | 'since'>,
    what: AcquiringItem['what'],
    href: string,
  ): AcquiringItem => ({ ascii, unicode, since, what, href });
  const waiting = '/acquire/waiting';
  return [
    ...registrations.flatMap((one) =>
      one.state === 'doubt'
        ? [item(one, 'in doubt', '/acquire/registered')]
        : one.byHand
          ? [item(one, 'to register by hand', '/acquire/registered')]
          : [],
    ),
    ...threads.flatMap((one) => {
      if (one.state === 'agreed') return [item(one, 'to pay', waiting)];
      if (one.state === 'paid') return [item(one, 'to arrive', waiting)];
      return one.state === 'open' && one.answerBy !== null && one.answerBy <= now
        ? [item({ ...one, since: one.answerBy }, 'answer overdue', waiting)]
        : [];
    }),
    ...orders.flatMap((one) => {
      if (one.state === 'trying') return [item(one, 'being tried', waiting)];
      const isNews = (one.state === 'got' || one.state === 'lost') && one.since > addDays(now, -NEWS_DAYS);
      return isNews ? [item(one, one.state === 'got' ? 'got' : 'lost', waiting)] : [];
    }),
  ];
}
