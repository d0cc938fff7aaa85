import { type Amount, convert, type Rate } from '../money';
import type { Day, Instant } from '../time';

/** How an order at release stands. `trying`: its earliest instant has come. `lost`: somebody else has registered the name. */
export const RELEASE_STATES = ['waiting', 'trying', 'got', 'lost', 'over', 'stopped'] as const;
export type ReleaseState = (typeof RELEASE_STATES)[number];
export const OPEN_RELEASES: readonly ReleaseState[] = ['waiting', 'trying'];

/** At least so long between two tries over one registrar's connection, whatever they are for. */
export const TRY_EVERY_MS = 60_000;
/** A record is looked at no more often than this while a name is waited for. */
export const LOOK_EVERY_MS = 600_000;

export interface Caps {
  readonly mostFirst: Amount;
  readonly mostRenewal: Amount;
}

/** What is asked for a name at its release. */
export interface Asking {
  readonly register: Amount | null;
  readonly renew: Amount | null;
}

/**
 * Why a name may not be bought for what is asked, in words; `null` where it may. A price that is not told, or that no dated rate brings into
 * the currency of the caps, is not agreed to.
 */
export function overCaps(
  asking: Asking,
  { mostFirst, mostRenewal }: Caps,
  rates: readonly Rate[],
  day: Day,
): string | null {
  const within = (sum: Amount | null, most: Amount, what: string): string | null => {
    if (sum === null) return `what the ${what} costs is not told`;
    const home = sum.currency === most.currency ? sum : convert(sum, most.currency, rates, day);
    if (home === null) return `no rate brings ${sum.currency} into ${most.currency}`;
    return home.minor > most.minor ? `the ${what} costs more than was agreed to` : null;
  };
  return within(asking.register, mostFirst, 'first term') ?? within(asking.renew, mostRenewal, 'renewal');
}

/** The accounts of an order that may be tried now, in their order: those over whose connection nothing was tried in the last minute. */
export function accountsToTry(
  accountIds: readonly number[],
  lastTryOf: ReadonlyMap<number, Instant>,
  now: Instant,
): number[] {
  return accountIds.filter((id) => {
    const last = lastTryOf.get(id);
    return last === undefined || now - last >= TRY_EVERY_MS;
  });
}
