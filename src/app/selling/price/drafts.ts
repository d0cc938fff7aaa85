import { convert, formatDecimal, wholeUnit } from '@/core/money';
import {
  AUCTION_DAYS,
  type CheckedListing,
  type Comparison,
  checkListing,
  compareSales,
  costIn,
  type Finding,
  type ListingKind,
  type ListingPrices,
  ladderOf,
  NO_PRICES,
  PRICE_NAMES,
  type PriceName,
  type PriceRule,
  priceByRule,
  type Rung,
  sellingTerms,
  yearlyReturn,
} from '@/core/selling';
import { dayOf } from '@/core/time';
import { typedAmount, typedMinor } from '@/ui/text/figures';
import type { PricedName, Pricing } from '@/usecases/selling/pricing';

/** A listing as it is being written: prices as they are typed. */
export interface Draft {
  readonly kind: ListingKind;
  readonly prices: Readonly<Record<PriceName, string>>;
  readonly reasons: Readonly<Partial<Record<PriceName, string>>>;
  readonly auctionDays: number;
  readonly reserveShown: boolean;
  readonly withSite: boolean;
  readonly categories: readonly string[];
  readonly pitch: string;
  readonly description: string;
  readonly adult: boolean;
  readonly network: boolean;
  readonly placement: string | null;
}

export type Drafts = ReadonlyMap<number, Draft>;

const BLANK: Readonly<Record<PriceName, string>> = { minimum: '', start: '', reserve: '', asking: '', buyNow: '' };

/** In which currency it is sold, and where. */
export interface Terms {
  readonly venue: Pricing['venues'][number] | null;
  readonly currency: string;
}

export function termsAt(pricing: Pricing, venueId: number | null, currency: string): Terms {
  const venue = pricing.venues.find(({ id }) => id === venueId) ?? null;
  return { venue, currency };
}

const typed = (minor: number | null, currency: string) => (minor === null ? '' : typedAmount({ minor, currency }));

/** Where each name begins: from its listing at the venue, else from the asking price that the ledger has. */
export function firstDrafts({ names, listings }: Pricing, venueId: number | null, currency: string): Drafts {
  return new Map(
    names.map(({ nameId, asking }) => {
      const listing =
        listings.find((one) => one.nameId === nameId && one.venueId === venueId) ??
        listings.find((one) => one.nameId === nameId);
      const prices = listing?.prices ?? NO_PRICES;
      const same = listing === undefined || listing.currency === currency;
      return [
        nameId,
        {
          kind: listing?.kind ?? 'both',
          prices: listing
            ? (Object.fromEntries(
                PRICE_NAMES.map((name) => [name, same ? typed(prices[name], currency) : '']),
              ) as Draft['prices'])
            : { ...BLANK, asking: asking?.currency === currency ? typed(asking.minor, currency) : '' },
          reasons: listing?.reasons ?? {},
          auctionDays: listing?.auctionDays ?? AUCTION_DAYS.usual,
          reserveShown: listing?.reserveShown ?? false,
          withSite: listing?.withSite ?? false,
          categories: listing?.categories ?? [],
          pitch: listing?.pitch ?? '',
          description: listing?.description ?? '',
          adult: listing?.adult ?? false,
          network: listing?.network ?? false,
          placement: listing?.placement ?? null,
        },
      ] as const;
    }),
  );
}

function pricesOfDraft(draft: Draft, currency: string): ListingPrices {
  return Object.fromEntries(
    PRICE_NAMES.map((name) => [name, typedMinor(draft.prices[name], currency)]),
  ) as unknown as ListingPrices;
}

/** Rules and fees for one draft, with what listing it still costs there: what was listed before has been paid. */
export function draftTerms(draft: Draft, { venue, currency }: Terms, pricing: Pricing, nameId: number) {
  const listed = pricing.listings.find((one) => one.nameId === nameId && one.venueId === venue?.id);
  return sellingTerms(venue, { ...draft, sentAt: listed?.sentAt ?? null }, currency, pricing.rates, pricing.now);
}

/** What a draft comes to: computed where it is typed, for one name. */
export interface Judged {
  readonly costMinor: number | null;
  readonly rungs: readonly Rung[];
  readonly findings: readonly Finding[];
  readonly checked: CheckedListing;
}

const judged = new WeakMap<Draft, { readonly terms: Terms; readonly pricing: Pricing; readonly judged: Judged }>();

/** What a draft comes to, remembered while neither it nor the terms change: of five hundred names one is typed at. */
export function judge(name: PricedName, draft: Draft, terms: Terms, pricing: Pricing): Judged {
  const known = judged.get(draft);
  if (known?.terms === terms && known.pricing === pricing) return known.judged;
  const fresh = judgeAnew(name, draft, terms, pricing);
  judged.set(draft, { terms, pricing, judged: fresh });
  return fresh;
}

function judgeAnew(name: PricedName, draft: Draft, terms: Terms, pricing: Pricing): Judged {
  const { currency } = terms;
  const { fees, rules, unitMinor } = draftTerms(draft, terms, pricing, name.nameId);
  const costMinor = costIn(name.spent, currency, pricing.rates, pricing.now)?.minor ?? null;
  const prices = pricesOfDraft(draft, currency);
  const offered = { kind: draft.kind, currency, prices, auctionDays: draft.auctionDays };
  const checked: CheckedListing = {
    offered,
    costMinor,
    unitMinor,
    venue: rules,
    pitch: draft.pitch,
    description: draft.description,
    now: pricing.now,
    termEnd: name.termEnd,
    lockedUntil: name.lockedUntil,
    atAccount: name.atAccount,
  };
  const isTyped = PRICE_NAMES.every((one) => !Number.isNaN(prices[one]));
  return {
    costMinor,
    checked,
    rungs: isTyped ? ladderOf(offered, costMinor, fees, unitMinor) : [],
    findings: checkListing(checked),
  };
}

/** The yearly return of a sale today that leaves so much. */
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
          ? typedMinor(draft.prices.asking, currency)
          : (comparablesOf(name, currency, pricing)?.medianMinor ?? null);
    const minor = Number.isNaN(base) ? null : priceByRule(base, rule, unitMinor);
    if (minor === null) continue;
    next.set(name.nameId, { ...draft, prices: { ...draft.prices, [price]: typed(minor, currency) } });
    set += 1;
  }
  return { drafts: next, set };
}

/** A typed price as a plain decimal; what is no price goes as it was typed, and is refused. */
function plainPrice(text: string, currency: string): string {
  const minor = typedMinor(text, currency);
  return minor === null ? '' : Number.isNaN(minor) ? text.trim() : formatDecimal({ minor, currency });
}

/** The request that lists these drafts. Only the prices that the kind has are sent. */
export function requestOf(drafts: Drafts, venueId: number | null, currency: string, send: boolean): object {
  return {
    ...(venueId === null ? {} : { venueId }),
    send,
    listings: [...drafts].map(([nameId, { placement, ...draft }]) => ({
      ...draft,
      nameId,
      currency,
      ...(placement === null ? {} : { placement }),
      prices: Object.fromEntries(PRICE_NAMES.map((name) => [name, plainPrice(draft.prices[name], currency)])),
    })),
  };
}
