import { roundHalfAway, shareOf } from '../money';
import type { VenueFees } from './venue';

/** What a price leaves, in minor units of its currency. */
export interface Leaves {
  readonly priceMinor: number;
  readonly commissionMinor: number;
  readonly feesMinor: number;
  /** Price less commission and fees. */
  readonly proceedsMinor: number;
}

/**
 * The commission on a price: each part of the price at the share of its step, at least the floor, and never more than the price.
 */
export function commissionOn(priceMinor: number, { percent, floorMinor, steps }: VenueFees): number {
  const bands = [{ fromMinor: 0, percent }, ...steps];
  const parts = bands.map((band, i) => {
    const end = bands[i + 1]?.fromMinor ?? Number.POSITIVE_INFINITY;
    return shareOf(Math.max(0, Math.min(priceMinor, end) - band.fromMinor), band.percent / 100);
  });
  const share = roundHalfAway(parts.reduce((sum, part) => sum + part, 0));
  return Math.min(priceMinor, Math.max(floorMinor, share));
}

/** What a sale at a price leaves after the venue's commission and fees. */
export function leavesOf(priceMinor: number, fees: VenueFees): Leaves {
  const commissionMinor = commissionOn(priceMinor, fees);
  const feesMinor = fees.saleFeeMinor + fees.listingFeeMinor;
  return { priceMinor, commissionMinor, feesMinor, proceedsMinor: priceMinor - commissionMinor - feesMinor };
}

/** More than any price: ten billion in minor units of two digits. */
const GREATEST_MINOR = 1e12;

/** The least price, in steps of `unitMinor`, that leaves at least `wantedMinor`; `null` when no price does. */
export function priceToLeave(wantedMinor: number, fees: VenueFees, unitMinor: number): number | null {
  const leaves = (units: number) => leavesOf(units * unitMinor, fees).proceedsMinor >= wantedMinor;
  let [low, high] = [0, Math.ceil(GREATEST_MINOR / unitMinor)];
  if (!leaves(high)) return null;
  // What is left never falls as the price rises, so that halving finds the least.
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    if (leaves(middle)) high = middle;
    else low = middle + 1;
  }
  return low * unitMinor;
}
