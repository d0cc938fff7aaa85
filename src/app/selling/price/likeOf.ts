import { type Comparison, comparablesOf, type PricedName, type Pricing } from '@/core/selling';

const known = new WeakMap<Pricing, Map<string, Comparison | null>>();

/** What like names were sold for, remembered while the sales are the same: looking through all of them takes a moment. */
export function likeOf(name: PricedName, currency: string, pricing: Pricing): Comparison | null {
  const found = known.get(pricing) ?? new Map<string, Comparison | null>();
  known.set(pricing, found);
  const key = `${name.ascii} ${currency}`;
  const before = found.get(key);
  if (before !== undefined) return before;
  const like = comparablesOf(name, currency, pricing);
  found.set(key, like);
  return like;
}
