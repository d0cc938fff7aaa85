import { roundHalfAway, shareOf } from '../money';
import type { MarketplaceFees } from './marketplace';

/** The net proceeds of a sale at a price, in minor units of its currency. */
export interface NetProceeds {
  readonly priceMinor: number;
  readonly commissionMinor: number;
  readonly feesMinor: number;
  /** Price less commission and fees. */
  readonly proceedsMinor: number;
}

/**
 * The commission on a price: each part of the price at the share of its step, at least the floor, and never more than the price.
 */
export function commissionOn(priceMinor: number, { percent, floorMinor, steps }: MarketplaceFees): number {
  const bands = [{ fromMinor: 0, percent }, ...steps];
  const parts = bands.map((band, i) => {
    const end = bands[i + 1]?.fromMinor ?? Number.POSITIVE_INFINITY;
    return shareOf(Math.max(0, Math.min(priceMinor, end) - band.fromMinor), band.percent / 100);
  });
  const share = roundHalfAway(parts.reduce((sum, part) => sum + part, 0));
  return Math.min(priceMinor, Math.max(floorMinor, share));
}

/** The net proceeds of a sale at a price: after the marketplace's commission and fees. */
export function netProceedsOf(priceMinor: number, fees: MarketplaceFees): NetProceeds {
  const commissionMinor = commissionOn(priceMinor, fees);
  const feesMinor = fees.saleFeeMinor + fees.listingFeeMinor;
  return { priceMinor, commissionMinor, feesMinor, proceedsMinor: priceMinor - commissionMinor - feesMinor };
}

/** More than any price: ten billion in minor units of two digits. */
const GREATEST_MINOR = 1e12;

/** The least price, in steps of `unitMinor`, whose net proceeds are at least `wantedMinor`; `null` when no price does. */
export function priceForProceeds(wantedMinor: number, fees: MarketplaceFees, unitMinor: number): number | null {
  const isEnough = (units: number) => netProceedsOf(units * unitMinor, fees).proceedsMinor >= wantedMinor;
  let [low, high] = [0, Math.ceil(GREATEST_MINOR / unitMinor)];
  if (!isEnough(high)) return null;
  // What is left never falls as the price rises, so that halving finds the least.
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    if (isEnough(middle)) high = middle;
    else low = middle + 1;
  }
  return low * unitMinor;
}
