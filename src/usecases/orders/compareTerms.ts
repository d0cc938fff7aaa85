import { type Amount, sumByCurrency } from '@/core/money';
import { pastRise } from '@/core/pricing';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { quantile } from '@/core/selling';
import { selectPrices } from '@/database/prices';
import type { Deps } from '../deps';
import { openRenewal } from './plan';
import { type QuotedItem, quoteRenewal, type RenewalQuote } from './quote';

/** What several years cost today, and one year, over the names that can be bought for either; a sum for each currency. */
export interface TermsCompared {
  readonly years: number;
  readonly names: number;
  /** Names left out: their ending or their term does not allow both, or a price is not known. */
  readonly leftOut: number;
  /** `now` buys all years, `yearly` the first one alone, `later` each one after it. */
  readonly sums: readonly { readonly now: Amount; readonly yearly: Amount; readonly later: Amount }[];
  /** By how much these prices have risen in a year, as a share, where their lists go back that far; the middle one of the names'. */
  readonly pastRise: number | null;
}

const MOST_YEARS = 10;

/** Prices the names of a renewal for `years` at once and for one year, as the book has them today. */
export async function compareTerms(deps: Deps, renewalId: string, years: number): Promise<TermsCompared | Refusal> {
  if (!Number.isInteger(years) || years < 1 || years > MOST_YEARS)
    return refuse('years-out-of-range', 'Compare 1 to 10 years.', 'years');
  const open = await openRenewal(deps, renewalId);
  if (isRefusal(open)) return open;
  const { quote } = open;
  const priced = async (term: number): Promise<readonly QuotedItem[] | Refusal> => {
    const answer = await quoteRenewal(deps, {
      items: quote.items.map(({ nameId }) => ({ nameId, years: term })),
      ...promotionAsked(quote),
      ...(quote.taxPercent === null ? {} : { taxPercent: quote.taxPercent }),
    });
    return isRefusal(answer) ? answer : answer.items;
  };
  const [long, one] = [await priced(years), await priced(1)];
  if (isRefusal(long)) return long;
  if (isRefusal(one)) return one;
  const possible = (item: QuotedItem | undefined) => item?.refusal === null && item.total !== null;
  const both = long.flatMap((item, place) => {
    const yearly = one[place];
    return possible(item) && possible(yearly) && yearly?.laterYear
      ? [{ item, now: item.total as Amount, yearly: yearly.total as Amount, later: yearly.laterYear }]
      : [];
  });
  const nows = sumByCurrency(both.map(({ now }) => now));
  const yearlies = sumByCurrency(both.map(({ yearly }) => yearly));
  const laters = sumByCurrency(both.map(({ later }) => later));
  return {
    years,
    names: both.length,
    leftOut: long.length - both.length,
    sums: nows.flatMap((now) => {
      const yearly = yearlies.find(({ currency }) => currency === now.currency);
      const later = laters.find(({ currency }) => currency === now.currency);
      return yearly && later ? [{ now, yearly, later }] : [];
    }),
    pastRise: await riseOf(
      deps,
      both.map(({ item }) => item),
    ),
  };
}

/** The promotion of a quote as it is asked for. */
function promotionAsked({ promotion }: RenewalQuote) {
  if (!promotion) return {};
  const { code, percent } = promotion;
  return { promotion: { ...(code === null ? {} : { code }), ...(percent === null ? {} : { percent }) } };
}

/** The middle of what the lists of these names' prices have risen by in a year. */
async function riseOf(deps: Deps, items: readonly QuotedItem[]): Promise<number | null> {
  const prices = (await selectPrices(deps.database)).filter(
    ({ action, nameId }) => action === 'renew' && nameId === null,
  );
  const rises = items.flatMap(({ accountId, ascii }) => {
    const ending = ascii.slice(ascii.indexOf('.') + 1);
    const own = prices.filter((price) => price.accountId === accountId && price.ending === ending);
    // A list that changed its currency is another list.
    return pastRise(own.filter(({ currency }) => currency === own.at(-1)?.currency)) ?? [];
  });
  return rises.length === 0 ? null : quantile(rises, 0.5);
}
