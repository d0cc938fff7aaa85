import { type Offered, PRICE_NAMES, type PriceName, usedPrices } from './listing';
import type { MarketplaceFees } from './marketplace';
import { type NetProceeds, netProceedsOf, priceForProceeds } from './netProceeds';

/** A rung: what the name has cost, the least that leaves no loss, or one of its prices, with its net proceeds. */
export interface Rung {
  readonly kind: 'cost' | 'no loss' | PriceName;
  readonly minor: number;
  /** `null` when the fees are not known. */
  readonly net: NetProceeds | null;
  /** Proceeds less cost; `null` when one of them is not known. */
  readonly profitMinor: number | null;
}

/** The rungs of a name's price ladder, lowest first. */
export function ladderOf(
  offered: Offered,
  costMinor: number | null,
  fees: MarketplaceFees | null,
  unitMinor: number,
): Rung[] {
  const prices = usedPrices(offered);
  const rung = (kind: Rung['kind'], minor: number): Rung => {
    const net = fees && netProceedsOf(minor, fees);
    return {
      kind,
      minor,
      net,
      profitMinor: costMinor === null || net === null ? null : net.proceedsMinor - costMinor,
    };
  };
  const noLoss = costMinor === null || fees === null ? null : priceForProceeds(costMinor, fees, unitMinor);
  return [
    ...(costMinor === null ? [] : [rung('cost', costMinor)]),
    ...(noLoss === null ? [] : [rung('no loss', noLoss)]),
    ...PRICE_NAMES.flatMap((name) => {
      const minor = prices[name];
      return minor === null ? [] : [rung(name, minor)];
    }),
  ].sort((a, b) => a.minor - b.minor);
}

/** A scale on which prices of very different size can be told apart: even steps are even factors. */
export interface LadderScale {
  readonly lowMinor: number;
  readonly highMinor: number;
}

/** The scale that holds all rungs of some ladders, from a little below the lowest to a little above the highest. */
export function scaleOf(minors: readonly number[], unitMinor: number): LadderScale {
  const positive = minors.filter((minor) => minor > 0);
  const low = Math.max(unitMinor, Math.min(...positive, 1000 * unitMinor) / 2);
  return { lowMinor: low, highMinor: Math.max(...positive, low * 4) * 2 };
}

/** Where a price stands on a scale: 0 at its foot, 1 at its head. */
export function placeOn({ lowMinor, highMinor }: LadderScale, minor: number): number {
  const place = Math.log(Math.max(minor, lowMinor) / lowMinor) / Math.log(highMinor / lowMinor);
  return Math.min(1, Math.max(0, place));
}

/** The price at a place of a scale, rounded to what a person would choose: two leading digits, whole units. */
export function priceAt({ lowMinor, highMinor }: LadderScale, place: number, unitMinor: number): number {
  const exact = lowMinor * (highMinor / lowMinor) ** Math.min(1, Math.max(0, place));
  const units = exact / unitMinor;
  const step = Math.max(1, 10 ** (Math.floor(Math.log10(Math.max(1, units))) - 1));
  return Math.max(1, Math.round(units / step) * step) * unitMinor;
}
