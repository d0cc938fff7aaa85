import { isRefusal, type Refusal } from '@/core/refusal';
import { cancelAuctions } from '@/database/auctions';
import { lockFreeListings, stepListings } from '@/database/listings';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { readRequest } from '../validate';
import { SomeListings } from './requests';

/** Withdraws listings. At a marketplace with a link they are withdrawn there; those in a running auction stay to its close. */
export const withdrawListingsById = command(
  'withdrawListingsById',
  async (deps: Deps, input: unknown): Promise<number | Refusal> => {
    const request = await readRequest(SomeListings, input);
    if (isRefusal(request)) return request;
    return changing(deps, async (tx) => {
      const rows = await lockFreeListings(tx, request.listingIds);
      const ids = (linked: boolean) => rows.filter((row) => row.linked === linked).map(({ id }) => id);
      await stepListings(tx, ids(true), { status: 'withdrawing' });
      await stepListings(tx, ids(false), { status: 'withdrawn' });
      await cancelAuctions(
        tx,
        rows.map(({ id }) => id),
        deps.clock(),
      );
      return rows.length;
    });
  },
);

/** Notes that listings were seen live at their marketplace, by looking. */
export const markSeenLive = command('markSeenLive', async (deps: Deps, input: unknown): Promise<number | Refusal> => {
  const request = await readRequest(SomeListings, input);
  if (isRefusal(request)) return request;
  const at = deps.clock();
  const seen = { status: 'live', seenLiveAt: at, provedAt: at, proofBy: 'by hand' } as const;
  return changing(deps, (tx) => stepListings(tx, request.listingIds, seen, ['unproved', 'in review', 'live']));
});
