import { roundHalfAway } from '../money';
import { type MarketplaceFees, netProceedsOf } from '../selling';
import { normalCdf, normalQuantile } from './distributions';

/** The share of the asking price that is paid, S: lognormal with this median, and this standard deviation of ln S. */
export interface PriceShare {
  readonly median: number;
  readonly sigma: number;
}

/** The share without own sales: an assumption, no source. */
export const USUAL_SHARE: PriceShare = { median: 0.6, sigma: 0.5 };

/** So many own sales say what share is paid; fewer say too little. */
export const SALES_FOR_SHARE = 5;

/** Median and spread of ln S of own sales; `null` of fewer than five. `shares` above 0: price over asking price. */
export function shareFromSales(shares: readonly number[]): PriceShare | null {
  if (shares.length < SALES_FOR_SHARE) return null;
  const logs = shares.map((share) => Math.log(Math.min(1, share))).sort((a, b) => a - b);
  const middle = logs.length >> 1;
  const median =
    logs.length % 2 === 1 ? (logs[middle] as number) : ((logs[middle - 1] as number) + (logs[middle] as number)) / 2;
  const mean = logs.reduce((sum, log) => sum + log, 0) / logs.length;
  const variance = logs.reduce((sum, log) => sum + (log - mean) ** 2, 0) / (logs.length - 1);
  return { median: Math.exp(median), sigma: Math.sqrt(variance) };
}

/** Nobody pays more than is asked, and nobody gets the name below the least offer: min(1, max(floor, S)) at a quantile of S. */
export function shareAt({ median, sigma }: PriceShare, floor: number, quantile: number): number {
  const share = sigma === 0 ? median : median * Math.exp(sigma * normalQuantile(quantile));
  return Math.min(1, Math.max(floor, share));
}

/** S at the middle of so many equally likely steps, in rising order; not yet held to what is asked and to the least offer. */
export function shareSteps({ median, sigma }: PriceShare, steps: number): Float64Array {
  return Float64Array.from({ length: steps }, (_, i) =>
    sigma === 0 ? median : median * Math.exp(sigma * normalQuantile((i + 0.5) / steps)),
  );
}

/** Mean shares that were worked out, by floor: nearly all names have none, or one of a few. */
const known = new WeakMap<PriceShare, Map<number, number>>();
const MOST_KNOWN = 10_000;

/** The mean of min(1, max(floor, S)): the integral of the lognormal in closed form. `floor` is 0 to 1. */
export function meanShare(share: PriceShare, floor: number): number {
  let byFloor = known.get(share);
  if (!byFloor || byFloor.size > MOST_KNOWN) {
    byFloor = new Map();
    known.set(share, byFloor);
  }
  let mean = byFloor.get(floor);
  if (mean === undefined) {
    mean = meanOf(share, floor);
    byFloor.set(floor, mean);
  }
  return mean;
}

function meanOf({ median, sigma }: PriceShare, floor: number): number {
  if (sigma === 0) return Math.min(1, Math.max(floor, median));
  const mu = Math.log(median);
  const low = floor <= 0 ? Number.NEGATIVE_INFINITY : (Math.log(floor) - mu) / sigma;
  const high = -mu / sigma;
  const between = median * Math.exp((sigma * sigma) / 2) * (normalCdf(high - sigma) - normalCdf(low - sigma));
  return floor * normalCdf(low) + between + 1 - normalCdf(high);
}

/** What a name is offered for: asking price and least offer in minor units of one currency, and the fees of a sale in it. */
export interface OfferedAt {
  readonly askingMinor: number;
  /** 0 for none. */
  readonly minimumMinor: number;
  readonly fees: MarketplaceFees;
}

const floorOf = ({ askingMinor, minimumMinor }: OfferedAt) =>
  askingMinor > 0 ? Math.min(1, minimumMinor / askingMinor) : 1;

/** True where the commission is one percentage of every price: what is kept of a mean price is then the mean of what is kept. */
export const isPlainFee = ({ floorMinor, steps }: MarketplaceFees) => floorMinor === 0 && steps.length === 0;

/** What a sale leaves after fees at a quantile of S, minor units, rounded once; below nothing where fees are higher than the price. */
export function proceedsAt(offered: OfferedAt, share: PriceShare, quantile: number): number {
  const { askingMinor, fees } = offered;
  const price = askingMinor * shareAt(share, floorOf(offered), quantile);
  if (isPlainFee(fees))
    return roundHalfAway(price * (1 - fees.percent / 100)) - fees.saleFeeMinor - fees.listingFeeMinor;
  return netProceedsOf(roundHalfAway(price), fees).proceedsMinor;
}

/** Quantiles at which proceeds are added up where fees have a floor or steps. */
const POINTS = 400;

/** What a sale is expected to leave after fees, minor units, not rounded. */
export function expectedProceeds(offered: OfferedAt, share: PriceShare): number {
  const { askingMinor, fees } = offered;
  if (isPlainFee(fees))
    return (
      askingMinor * meanShare(share, floorOf(offered)) * (1 - fees.percent / 100) -
      fees.saleFeeMinor -
      fees.listingFeeMinor
    );
  let sum = 0;
  for (let i = 0; i < POINTS; i += 1) sum += proceedsAt(offered, share, (i + 0.5) / POINTS);
  return sum / POINTS;
}

const GREATEST_MINOR = 1e12;

/** The least asking price, whole minor units, at which a sale is expected to leave at least `wantedMinor`; `null` where none does. */
export function askingFor(
  wantedMinor: number,
  offered: Omit<OfferedAt, 'askingMinor'>,
  share: PriceShare,
): number | null {
  const { minimumMinor, fees } = offered;
  if (minimumMinor === 0 && isPlainFee(fees) && fees.percent < 100) {
    const left = meanShare(share, 0) * (1 - fees.percent / 100);
    return Math.max(0, Math.ceil((wantedMinor + fees.saleFeeMinor + fees.listingFeeMinor) / left));
  }
  const isEnough = (askingMinor: number) => expectedProceeds({ ...offered, askingMinor }, share) >= wantedMinor;
  if (!isEnough(GREATEST_MINOR)) return null;
  // What is expected never falls as more is asked, so that halving finds the least.
  let [low, high] = [0, GREATEST_MINOR];
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    if (isEnough(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}
