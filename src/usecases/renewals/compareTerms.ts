import { type Amount, sumByCurrency } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import type { Deps } from '../deps';
import { type QuotedItem, quoteRenewal } from './quote';
import { openRenewal } from './renew';

/** What several years cost today, and one year, over the names that can be bought for either; a sum for each currency. */
export interface TermsCompared {
  readonly years: number;
  readonly names: number;
  /** Names left out: their ending or their term does not allow both, or a price is not known. */
  readonly leftOut: number;
  readonly sums: readonly { readonly now: Amount; readonly yearly: Amount }[];
}

const MOST_YEARS = 10;

/** Prices the names of a renewal for `years` at once and for one year, as the book has them today. */
export async function compareTerms(deps: Deps, renewalId: string, years: number): Promise<TermsCompared | Refusal> {
  if (!Number.isInteger(years) || years < 2 || years > MOST_YEARS)
    return refuse('years-out-of-range', 'Compare 2 to 10 years.', 'years');
  const open = await openRenewal(deps, renewalId);
  if (isRefusal(open)) return open;
  const { quote } = open;
  const priced = async (term: number): Promise<readonly QuotedItem[] | Refusal> => {
    const answer = await quoteRenewal(deps, {
      items: quote.items.map(({ nameId }) => ({ nameId, years: term })),
      ...(quote.promotion ? { promotion: quote.promotion } : {}),
      taxPercent: quote.taxPercent,
    });
    return isRefusal(answer) ? answer : answer.items;
  };
  const [long, one] = [await priced(years), await priced(1)];
  if (isRefusal(long)) return long;
  if (isRefusal(one)) return one;
  const possible = (item: QuotedItem | undefined) => item?.refusal === null && item.total !== null;
  const both = long.flatMap((item, place) => {
    const yearly = one[place];
    return possible(item) && possible(yearly) ? [{ now: item.total as Amount, yearly: yearly?.total as Amount }] : [];
  });
  const nows = sumByCurrency(both.map(({ now }) => now));
  const yearlies = sumByCurrency(both.map(({ yearly }) => yearly));
  return {
    years,
    names: both.length,
    leftOut: long.length - both.length,
    sums: nows.flatMap((now) => {
      const yearly = yearlies.find(({ currency }) => currency === now.currency);
      return yearly ? [{ now, yearly }] : [];
    }),
  };
}
