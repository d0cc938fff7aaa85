import { createHash, randomBytes } from 'node:crypto';
import { type Refusal, refuse } from '@/core/refusal';
import { addDays } from '@/core/time';
import { type FeedRow, insertFeed, readFeedToken, selectFeed, withdrawFeed } from '@/database/feeds';
import { transaction } from '@/database/pool';
import type { Deps } from '../deps';
import { command } from '../people/command';

export type { FeedRow } from '@/database/feeds';

/** A calendar program asks with the same address for so long; then a new one is made. */
const KEPT_DAYS = 365;

const hashOf = (token: string) => createHash('sha256').update(token).digest();

/** The calendar's address as far as it may be shown: when it was made, how long it holds, when it was last read. */
export function calendarFeed(deps: Deps): Promise<FeedRow | null> {
  return selectFeed(deps.database, 'calendar');
}

/** Makes a new address for the calendar, in place of the old one. Answers its token, once: only its hash is kept. */
export const makeCalendarFeed = command('makeCalendarFeed', async (deps: Deps): Promise<string> => {
  const token = randomBytes(24).toString('base64url');
  const at = deps.clock();
  await transaction(deps.database, async (tx) => {
    await withdrawFeed(tx, 'calendar', at);
    await insertFeed(tx, 'calendar', hashOf(token), at, addDays(at, KEPT_DAYS));
  });
  return token;
});

export const withdrawCalendarFeed = command('withdrawCalendarFeed', async (deps: Deps): Promise<true> => {
  await withdrawFeed(deps.database, 'calendar', deps.clock());
  return true;
});

/** Why a feed may not be read with this token; `null` when it may. */
export async function readFeed(deps: Deps, token: string | null): Promise<Refusal | null> {
  const isGood = token !== null && (await readFeedToken(deps.database, 'calendar', hashOf(token), deps.clock()));
  return isGood
    ? null
    : refuse(
        'feed-token-invalid',
        'This address of the calendar does not hold, or not any more. Make a new one under Setup → Mail.',
      );
}
