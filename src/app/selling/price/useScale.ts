'use client';
import { useMemo } from 'react';
import { wholeUnit } from '@/core/money';
import { type Drafts, type LadderScale, PRICE_NAMES, type PricedName, scaleOf } from '@/core/selling';

/** Costs that the scale looks at. */
const MOST_COSTS = 50;

const least = (values: readonly number[]) => values.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
const greatest = (values: readonly number[]) => values.reduce((a, b) => Math.max(a, b), 0);

/** The scale of all ladders: it stays while prices are moved on it, and follows when they leave it by a factor of two. */
export function useScale(names: readonly PricedName[], drafts: Drafts, currency: string): LadderScale {
  const [low, high] = useMemo(() => {
    const minors = [...drafts.values()].flatMap(({ prices }) =>
      PRICE_NAMES.flatMap((name) => prices[name] ?? []).filter((minor) => minor > 0),
    );
    const band = (minor: number) => 2 ** Math.round(Math.log2(Math.max(1, minor)));
    return minors.length === 0 ? [0, 0] : [band(least(minors)), band(greatest(minors))];
  }, [drafts]);
  const unitMinor = wholeUnit(currency);
  return useMemo(() => {
    const costs = names.slice(0, MOST_COSTS).flatMap((name) => name.spent.map(({ minor }) => minor));
    return scaleOf([...costs, low, high], unitMinor);
  }, [names, low, high, unitMinor]);
}
