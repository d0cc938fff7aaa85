import { conditionWords, type Price } from '@/core/pricing';
import { formatAmount } from '@/ui/text/figures';

/** What a price says beside its year: totals of longer terms, a first price with its condition, what is included. */
export function moreOf(
  price: Pick<Price, 'termTotals' | 'currency' | 'firstYearMinor' | 'firstYearCondition' | 'included'>,
): string {
  const parts = Object.entries(price.termTotals ?? {}).map(
    ([years, minor]) => `${years} years ${formatAmount({ minor, currency: price.currency })}`,
  );
  if (price.firstYearMinor !== null)
    parts.push(
      `first year ${formatAmount({ minor: price.firstYearMinor, currency: price.currency })} (${price.firstYearCondition ? conditionWords(price.firstYearCondition) : 'any term'})`,
    );
  if (price.included !== '') parts.push(`with ${price.included}`);
  return parts.join(', ');
}
