import { type Price, pastRise } from '../pricing';
import type { LedgerRules } from './data';

/** How a yearly rise is known: said by the office, read from the list's own history, or taken as none. */
export interface Rise {
  readonly yearly: number;
  readonly by: 'office' | 'list' | 'nothing';
}

/** A list that fell or rose by more in a year was written for something else. */
const MOST_RISE = 0.5;

/** By how much a year an account's renewals of an ending rise. */
export function riseOf(index: { readonly rules: LedgerRules }, accountId: number, ending: string): Rise {
  const said = index.rules.rises.find((rise) => rise.accountId === accountId && rise.ending === ending);
  if (said) return { yearly: said.yearly, by: 'office' };
  const own = index.rules.prices.filter(
    (price) =>
      price.accountId === accountId && price.ending === ending && price.action === 'renew' && price.nameId === null,
  );
  const newest = own.reduce<Price | null>(
    (last, price) => (last === null || price.from > last.from ? price : last),
    null,
  );
  const past = pastRise(own.filter(({ currency }) => currency === newest?.currency));
  return past === null || Math.abs(past) > MOST_RISE ? { yearly: 0, by: 'nothing' } : { yearly: past, by: 'list' };
}
