import { type PricesAsked, pricedEndings, pricesOfEnding, type RuleIndex } from '@/core/ledger';
import type { PriceCellView, PriceLineView } from './views';

/** What every ending of the price lists costs at each account over so many years. */
export function priceLines(index: RuleIndex, asked: PricesAsked, years: number): PriceLineView[] {
  return pricedEndings(index).map((ending) => ({
    ending,
    cells: pricesOfEnding(index, ending, asked).accounts.map((priced): PriceCellView => {
      const path = priced.paths[years - 1] ?? null;
      const first = path?.payments[0];
      return {
        accountId: priced.accountId,
        totalMinor: path?.totalMinor ?? null,
        firstMinor: first?.minor ?? null,
        next: priced.next[years - 1] ?? null,
        condition: priced.condition,
        notCompared: priced.notCompared,
      };
    }),
  }));
}
