import { type Amount, convert, type Rate, wholeUnit } from '../money';
import { type Day, dayOf, type Instant } from '../time';
import { type CheckedListing, checkListing, type Finding } from './checks';
import { type Comparison, compareSales, type PastSale } from './comparables';
import { ladderOf, type Rung } from './ladder';
import {
  FRESH_TERMS,
  type ListingPrices,
  type ListingTerms,
  PRICE_NAMES,
  type PriceName,
  type PriceReasons,
  termsOf,
} from './listing';
import { type PriceRule, priceByRule } from './priceRule';
import { costIn, type ListingFees, type MarketplaceTerms, sellingTerms } from './terms';
import { yearlyReturn } from './yearlyReturn';

/** One name as it is priced: what the checks and the ladder need. */
export interface PricedName {
  readonly nameId: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly account: string;
  readonly spent: readonly Amount[];
  /** The same, entry by entry. */
  readonly entries: readonly { readonly day: Day; readonly minor: number; readonly currency: string }[];
  readonly asking: Amount | null;
  readonly termEnd: Instant | null;
  readonly lockedUntil: Instant | null;
  readonly atAccount: boolean;
}

/** A marketplace as names are priced for it. */
export interface PricedMarketplace extends MarketplaceTerms, ListingFees {
  readonly id: number;
}

/** A listing that a name has already. */
export interface KnownListing extends ListingTerms {
  readonly nameId: number;
  readonly marketplaceId: number | null;
  readonly reasons: PriceReasons;
  readonly sentAt: Instant | null;
}

/** Everything that names are priced from. */
export interface Pricing<M extends PricedMarketplace = PricedMarketplace> {
  readonly names: readonly PricedName[];
  readonly listings: readonly KnownListing[];
  readonly marketplaces: readonly M[];
  readonly rates: readonly Rate[];
  readonly sales: readonly PastSale[];
  readonly homeCurrency: string;
  readonly now: Instant;
}

/** A listing as it is being written. */
export interface Draft extends ListingTerms {
  readonly reasons: PriceReasons;
  /** What was typed for a price and is no amount. It stops the listing; the price counts as not set. */
  readonly unread: Readonly<Partial<Record<PriceName, string>>>;
}

export type Drafts = ReadonlyMap<number, Draft>;

/** In which currency it is sold, and where. */
export interface SoldAt<M extends PricedMarketplace = PricedMarketplace> {
  readonly marketplace: M | null;
  readonly currency: string;
}

export function soldAt<M extends PricedMarketplace>(
  pricing: Pricing<M>,
  marketplaceId: number | null,
  currency: string,
): SoldAt<M> {
  return { marketplace: pricing.marketplaces.find(({ id }) => id === marketplaceId) ?? null, currency };
}

/** Where each name begins: from its listing at the marketplace, else from the asking price that the ledger has. */
export function firstDrafts({ names, listings }: Pricing, marketplaceId: number | null, currency: string): Drafts {
  return new Map(
    names.map(({ nameId, asking }) => {
      const listing =
        listings.find((one) => one.nameId === nameId && one.marketplaceId === marketplaceId) ??
        listings.find((one) => one.nameId === nameId);
      const fresh = { ...FRESH_TERMS, ...listing, reasons: listing?.reasons ?? {}, currency, unread: {} };
      const prices =
        listing?.currency === currency
          ? listing.prices
          : { ...FRESH_TERMS.prices, asking: !listing && asking?.currency === currency ? asking.minor : null };
      return [nameId, { ...draftOf(fresh), prices }] as const;
    }),
  );
}

/** A draft alone, of something that holds more. */
function draftOf({ reasons, unread, ...listing }: Draft): Draft {
  return { ...termsOf(listing), reasons, unread };
}

/** Drafts in another currency: the figures stay, as they would be typed. */
export function draftsIn(drafts: Drafts, currency: string): Drafts {
  return new Map(
    [...drafts].map(([nameId, draft]) => {
      const factor = wholeUnit(currency) / wholeUnit(draft.currency);
      const inUnits = (minor: number | null) => (minor === null ? null : Math.round(minor * factor));
      const prices = Object.fromEntries(PRICE_NAMES.map((name) => [name, inUnits(draft.prices[name])]));
      return [nameId, { ...draft, currency, prices: prices as ListingPrices }] as const;
    }),
  );
}

/** A draft with one of its prices set: `minor` is `null` for none, `unread` is what was typed and is no amount. */
export function withPrice(draft: Draft, price: PriceName, minor: number | null, unread: string | null = null): Draft {
  const { [price]: _before, ...others } = draft.unread;
  return {
    ...draft,
    prices: { ...draft.prices, [price]: minor },
    unread: unread === null ? others : { ...others, [price]: unread },
  };
}

/** Rules and fees for one draft, with what listing it still costs there: what was listed before has been paid. */
export function draftTerms(draft: Draft, { marketplace, currency }: SoldAt, pricing: Pricing, nameId: number) {
  const listed = pricing.listings.find((one) => one.nameId === nameId && one.marketplaceId === marketplace?.id);
  return sellingTerms(marketplace, { ...draft, sentAt: listed?.sentAt ?? null }, currency, pricing.rates, pricing.now);
}

/** What a draft comes to: computed where it is typed, for one name. */
export interface Judged {
  readonly costMinor: number | null;
  readonly rungs: readonly Rung[];
  readonly findings: readonly Finding[];
  readonly checked: CheckedListing;
}

const judged = new WeakMap<Draft, { readonly terms: SoldAt; readonly pricing: Pricing; readonly judged: Judged }>();

/** What a draft comes to, remembered while neither it nor the terms change: of five hundred names one is typed at. */
export function priceDraft(name: PricedName, draft: Draft, terms: SoldAt, pricing: Pricing): Judged {
  const known = judged.get(draft);
  if (known?.terms === terms && known.pricing === pricing) return known.judged;
  const fresh = priceAnew(name, draft, terms, pricing);
  judged.set(draft, { terms, pricing, judged: fresh });
  return fresh;
}

function priceAnew(name: PricedName, draft: Draft, terms: SoldAt, pricing: Pricing): Judged {
  const { currency } = terms;
  const { fees, rules, unitMinor } = draftTerms(draft, terms, pricing, name.nameId);
  const costMinor = costIn(name.spent, currency, pricing.rates, pricing.now)?.minor ?? null;
  const offered = { ...draft, currency };
  const checked: CheckedListing = {
    offered,
    costMinor,
    unitMinor,
    marketplace: rules,
    pitch: draft.pitch,
    description: draft.description,
    now: pricing.now,
    termEnd: name.termEnd,
    lockedUntil: name.lockedUntil,
    atAccount: name.atAccount,
  };
  const unread = PRICE_NAMES.filter((price) => draft.unread[price] !== undefined);
  return {
    costMinor,
    checked,
    rungs: unread.length === 0 ? ladderOf(offered, costMinor, fees, unitMinor) : [],
    findings: [...unread.map(unreadPrice), ...checkListing(checked)],
  };
}

const unreadPrice = (price: PriceName): Finding => ({
  code: 'price not read',
  stops: true,
  price,
  other: null,
  figure: null,
  at: null,
});

/** The yearly return of a sale today with such net proceeds. */
export function returnOf(name: PricedName, proceedsMinor: number, currency: string, pricing: Pricing): number | null {
  const money = name.entries.map((entry) => {
    const converted =
      convert(entry, currency, pricing.rates, entry.day) ?? convert(entry, currency, pricing.rates, dayOf(pricing.now));
    return converted === null ? null : { day: entry.day, minor: -converted.minor };
  });
  if (money.some((one) => one === null)) return null;
  return yearlyReturn([
    ...(money as { day: PricedName['entries'][number]['day']; minor: number }[]),
    { day: dayOf(pricing.now), minor: proceedsMinor },
  ]);
}

/** The sales most like a name, in one currency. */
export function comparablesOf(name: PricedName, currency: string, pricing: Pricing): Comparison | null {
  return compareSales(name.ascii, pricing.sales, currency);
}

/** Sets one price of many names by a rule; names whose base is not known keep theirs. Answers the drafts and how many were set. */
export function applyRule(
  drafts: Drafts,
  nameIds: readonly number[],
  price: PriceName,
  rule: PriceRule,
  currency: string,
  pricing: Pricing,
): { readonly drafts: Drafts; readonly set: number } {
  const unitMinor = wholeUnit(currency);
  const next = new Map(drafts);
  let set = 0;
  for (const name of pricing.names) {
    const draft = drafts.get(name.nameId);
    if (!draft || !nameIds.includes(name.nameId)) continue;
    const base =
      rule.base === 'cost'
        ? (costIn(name.spent, currency, pricing.rates, pricing.now)?.minor ?? null)
        : rule.base === 'asking'
          ? draft.prices.asking
          : (comparablesOf(name, currency, pricing)?.medianMinor ?? null);
    const minor = priceByRule(base, rule, unitMinor);
    if (minor === null) continue;
    next.set(name.nameId, withPrice(draft, price, minor));
    set += 1;
  }
  return { drafts: next, set };
}
