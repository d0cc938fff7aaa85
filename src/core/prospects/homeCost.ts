import type { Projection } from '../ledger';
import { type Amount, minorFactor, roundHalfAway } from '../money';
import { dayOf } from '../time';

/**
 * Costs in minor units of the home currency, each rounded once, at today's rates. A price that nobody knows counts as what stands in for it; `null` without
 * that, and where no rate is known: nothing stands in for a rate.
 */
export function homeCosts(
  projection: Projection,
  unknownPriceMinor: number | null,
): (cost: Amount | null) => number | null {
  const { homeCurrency, rates } = projection.index.rules;
  const day = dayOf(projection.asOf);
  const factors = new Map<string, number | null>();
  return (cost) => {
    if (cost === null) return unknownPriceMinor;
    if (cost.currency === homeCurrency) return cost.minor;
    let factor = factors.get(cost.currency);
    if (factor === undefined) {
      factor = minorFactor(cost.currency, homeCurrency, rates, day);
      factors.set(cost.currency, factor);
    }
    return factor === null ? null : roundHalfAway(cost.minor * factor);
  };
}
