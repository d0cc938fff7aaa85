import { addDays, DAY_MS, HOUR_MS, type Instant } from '../time';
import { dueAt, SALE_STAGES } from './handover';
import { LISTING_LIMITS, leadingPrice, type Offered, PRICE_NAMES, type PriceName, usedPrices } from './listing';
import { type MarketplaceRules, NO_FEES } from './marketplace';
import { netProceedsOf, priceForProceeds } from './netProceeds';

/** What may be wrong with a listing. Every code means one thing. */
export type FindingCode =
  | 'price missing'
  | 'price not read'
  | 'price not whole'
  | 'order of prices'
  | 'currency not taken'
  | 'no auctions here'
  | 'auction length'
  | 'too long'
  | 'payout not set'
  | 'below cost'
  | 'proceeds below cost'
  | 'cost not known'
  | 'fees not known'
  | 'term too short'
  | 'transfer lock'
  | 'not at the account';

/** One thing that is wrong (`stops`), or that the owner should know. */
export interface Finding {
  readonly code: FindingCode;
  readonly stops: boolean;
  readonly price: PriceName | null;
  /** The other price, in a matter of order. */
  readonly other: PriceName | null;
  /** The loss, the least price that leaves none, or the greatest length. */
  readonly figure: number | null;
  readonly at: Instant | null;
}

/** A listing with what the checks have to know of it. */
export interface CheckedListing {
  readonly offered: Offered;
  /** What the name has cost, in the listing's currency; `null` when that is not known. */
  readonly costMinor: number | null;
  /** One whole unit of the currency, in minor units. */
  readonly unitMinor: number;
  readonly marketplace: MarketplaceRules | null;
  readonly pitch: string;
  readonly description: string;
  readonly now: Instant;
  /** The earliest end of its term; `null` when it is not known. */
  readonly termEnd: Instant | null;
  /** Until when registrars may refuse to transfer it; `null` when they may not. */
  readonly lockedUntil: Instant | null;
  readonly atAccount: boolean;
}

/** Days from a sale until the name is handed over: payment, the buyer's account, the push or transfer. */
export const HANDOVER_DAYS = SALE_STAGES.slice(0, 3).reduce(
  (days, stage) => days + ((dueAt(stage, 0 as Instant) ?? 0) as number) / DAY_MS,
  0,
);

/** Pairs that must rise; the second strictly where it says so. */
const ORDER: readonly (readonly [PriceName, PriceName, boolean])[] = [
  ['minimum', 'asking', false],
  ['asking', 'buyNow', false],
  ['minimum', 'buyNow', false],
  ['start', 'reserve', false],
  ['reserve', 'buyNow', true],
  ['start', 'buyNow', true],
];

/** Everything that is wrong with a listing, what stops it first. */
export function checkListing(checked: CheckedListing): Finding[] {
  const { offered, marketplace, unitMinor, costMinor } = checked;
  const prices = usedPrices(offered);
  const found: Finding[] = [];
  const add = (code: FindingCode, stops: boolean, more: Partial<Finding> = {}) =>
    found.push({ code, stops, price: null, other: null, figure: null, at: null, ...more });
  const leading = leadingPrice(offered.kind);
  if (leading !== null && prices[leading] === null) add('price missing', true, { price: leading });
  for (const price of PRICE_NAMES) {
    const minor = prices[price];
    if (minor !== null && (minor <= 0 || (marketplace?.wholeUnits !== false && minor % unitMinor !== 0)))
      add('price not whole', true, { price });
  }
  for (const [lower, upper, strictly] of ORDER) {
    const [low, high] = [prices[lower], prices[upper]];
    if (low !== null && high !== null && (strictly ? low >= high : low > high))
      add('order of prices', true, { price: lower, other: upper });
  }
  if (marketplace && marketplace.currencies.length > 0 && !marketplace.currencies.includes(offered.currency))
    add('currency not taken', true);
  if (offered.kind === 'auction') checkAuction(offered.auctionDays, marketplace, add);
  for (const text of ['pitch', 'description'] as const)
    if (checked[text].length > LISTING_LIMITS[text]) add('too long', true, { figure: LISTING_LIMITS[text] });
  if (marketplace && !marketplace.payoutSet) add('payout not set', true);
  const fees = marketplace ? marketplace.fees : NO_FEES;
  if (fees === null) add('fees not known', false);
  if (costMinor === null) add('cost not known', false);
  else
    for (const price of PRICE_NAMES) {
      const minor = prices[price];
      // The start binds nobody to sell where a reserve stands above it.
      if (minor === null || (price === 'start' && prices.reserve !== null)) continue;
      if (minor < costMinor) add('below cost', false, { price, figure: costMinor - minor });
      else if (fees !== null && netProceedsOf(minor, fees).proceedsMinor < costMinor)
        add('proceeds below cost', false, { price, figure: priceForProceeds(costMinor, fees, unitMinor) });
    }
  const until = soldBy(offered, marketplace, checked.now);
  if (checked.termEnd !== null && checked.termEnd < until) add('term too short', false, { at: until });
  if (checked.lockedUntil !== null && checked.lockedUntil > checked.now)
    add('transfer lock', false, { at: checked.lockedUntil });
  if (!checked.atAccount) add('not at the account', false);
  return found.sort((a, b) => Number(b.stops) - Number(a.stops));
}

function checkAuction(
  days: number,
  marketplace: MarketplaceRules | null,
  add: (code: FindingCode, stops: boolean, more?: Partial<Finding>) => void,
): void {
  const { least, most } = LISTING_LIMITS.auctionDays;
  if (!Number.isInteger(days) || days < least || days > most) add('auction length', true, { figure: most });
  else if (marketplace && marketplace.auctionDays.length === 0) add('no auctions here', true);
  else if (marketplace && !marketplace.auctionDays.includes(days))
    add('auction length', true, { figure: Math.max(...marketplace.auctionDays) });
}

/** When a name that is listed now would be handed over at the latest: review, auction, and the steps of a sale. */
export function soldBy(
  offered: Pick<Offered, 'kind' | 'auctionDays'>,
  marketplace: Pick<MarketplaceRules, 'reviewHours'> | null,
  now: Instant,
): Instant {
  const listed = (now + (marketplace?.reviewHours ?? 0) * HOUR_MS) as Instant;
  return addDays(listed, (offered.kind === 'auction' ? offered.auctionDays : 0) + HANDOVER_DAYS);
}
