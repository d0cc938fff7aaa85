import { whileAlone } from '@/database/locks';
import { moveRegistrations, type RegistrationRow, selectOpenRegistrations } from '@/database/registrations';
import type { Deps } from '../deps';
import { linkOf } from '../links/links';
import { takeStep } from '../orders/step';
import { itself } from '../people/command';
import { REGISTERING } from './registering';

/** So many names of an account are looked up, sent and booked together: a crash leaves no more than these to be looked up again. */
const GROUP = 25;

/**
 * Registers every name that was agreed to, at the accounts that have a link, by the engine of all orders. Safe to call again after a crash
 * at any moment: what may have been sent is first looked up. Answers how many are settled; `null` while another process is at it.
 */
export const carryOnRegistrations = itself((deps: Deps): Promise<number | null> => {
  return whileAlone(deps.database, 'registrations', async () => {
    const open = (await selectOpenRegistrations(deps.database)).filter(
      ({ byHand, state }) => !byHand && state !== 'doubt',
    );
    const byAccount = new Map<number, RegistrationRow[]>();
    for (const item of open) byAccount.set(item.accountId, [...(byAccount.get(item.accountId) ?? []), item]);
    const settled = await Promise.all([...byAccount].map(([accountId, items]) => atAccount(deps, accountId, items)));
    return settled.reduce((sum, count) => sum + count, 0);
  });
});

async function atAccount(deps: Deps, accountId: number, items: readonly RegistrationRow[]): Promise<number> {
  const link = await linkOf(deps, accountId);
  if (!link) {
    const problem = 'This account has no link that works.';
    await moveRegistrations(
      deps.database,
      items.map(({ id, state }) => ({ id, state, problem })),
      deps.clock(),
    );
    return 0;
  }
  let settled = 0;
  for (let start = 0; start < items.length; start += GROUP) {
    const went = await takeStep(deps, link, REGISTERING, items.slice(start, start + GROUP));
    settled += went.done.length + went.settled;
    if (went.unreachable) break;
  }
  return settled;
}
