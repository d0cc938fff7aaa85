import type { Policy } from '@/core/lifecycle';
import type { Rate } from '@/core/money';
import { conditionWords, PRICE_ACTIONS } from '@/core/pricing';
import type { AccountOverYears, OverYears, Way, WayPayment } from '@/usecases/accounts/overYears';
import type { ListedChange, PriceRow } from '@/usecases/accounts/prices';
import type { MarketplaceRow } from '@/usecases/marketplaces/marketplaces';
import type { policies } from '@/usecases/policies/policies';
import type { Settings } from '@/usecases/settings';
import {
  amountOf,
  byName,
  day,
  documentOf,
  figure,
  from,
  instant,
  list,
  money,
  named,
  oneOf,
  orNull,
  text,
  whole,
  yesNo,
} from '../kinds';

export type NamedPrice = PriceRow & { readonly account: string };

export const price = named(
  'Price',
  documentOf<NamedPrice>()({
    id: whole,
    account: text,
    name: from(({ ascii }: NamedPrice) => ascii, orNull(text)),
    ending: text,
    action: oneOf(...PRICE_ACTIONS),
    year: amountOf(({ yearMinor: minor, currency }: NamedPrice) => ({ minor, currency })),
    firstYear: amountOf(({ firstYearMinor: minor, currency }: NamedPrice) => ({ minor, currency })),
    firstYearCondition: from(
      ({ firstYearCondition }: NamedPrice) => firstYearCondition && conditionWords(firstYearCondition),
      orNull(text),
    ),
    termTotals: from(
      ({ termTotals, currency }: NamedPrice) =>
        Object.fromEntries(Object.entries(termTotals ?? {}).map(([years, minor]) => [years, { minor, currency }])),
      byName(money),
    ),
    feeIncluded: yesNo,
    from: day,
    origin: oneOf('list', 'by hand', 'inferred'),
    item: text,
    included: text,
    source: text,
  }),
);

export const change = documentOf<ListedChange>()({
  ending: from(({ price: { ending } }: ListedChange) => ending, text),
  action: from(({ price: { action } }: ListedChange) => action as string, text),
  year: amountOf(({ price: { yearMinor: minor, currency } }: ListedChange) => ({ minor, currency })),
  known: amountOf(({ knownMinor: minor, price: { currency } }: ListedChange) => ({ minor, currency })),
  outcome: oneOf('new', 'changed', 'same'),
});

export const policy = named(
  'Policy',
  documentOf<Policy>()({
    ending: text,
    lateDays: whole,
    redemptionDays: whole,
    pendingRestoreDays: whole,
    pendingDeleteDays: whole,
    refundableDays: whole,
    terms: byName(documentOf<Policy['terms']['renew']>()({ least: whole, greatest: whole, step: whole })),
    transferYears: whole,
    transferLockDays: whole,
    holderLockDays: whole,
    ceilingYears: whole,
    yearlyFee: yesNo,
    letters: orNull(text),
    source: from(({ source }: Policy) => source as string, text),
    sourceNote: text,
    sourceDate: day,
    verified: yesNo,
  }),
);

export type Policies = Awaited<ReturnType<typeof policies>>;

export const shop = named(
  'Marketplace',
  documentOf<MarketplaceRow>()({
    id: whole,
    label: text,
    currencies: list(text),
    feesCurrency: text,
    percent: figure,
    floor: amountOf(({ floorMinor: minor, feesCurrency: currency }: MarketplaceRow) => ({ minor, currency })),
    saleFee: amountOf(({ saleFeeMinor: minor, feesCurrency: currency }: MarketplaceRow) => ({ minor, currency })),
    listingFee: amountOf(({ listingFeeMinor: minor, feesCurrency: currency }: MarketplaceRow) => ({ minor, currency })),
    membership: amountOf(({ membershipMinor: minor, feesCurrency: currency }: MarketplaceRow) => ({ minor, currency })),
    wholeUnits: yesNo,
    auctionDays: list(whole),
    extensionMinutes: whole,
    reviewHours: whole,
    payoutSet: yesNo,
    categories: list(text),
    notes: text,
    linkUrl: orNull(text),
    linkReadAt: orNull(instant),
    linkProblem: orNull(text),
  }),
);

const wayPayment = documentOf<WayPayment>()({
  account: text,
  action: text,
  years: whole,
  afterYears: whole,
  amount: money,
});

export const overYears = documentOf<OverYears>()({
  ending: text,
  years: whole,
  accounts: list(
    documentOf<AccountOverYears>()({
      account: text,
      total: orNull(money),
      next: orNull(money),
      nextOn: from(({ next }: AccountOverYears) => next?.on ?? null, orNull(day)),
      condition: orNull(text),
      yearlyRise: figure,
      notCompared: orNull(text),
    }),
  ),
  best: orNull(documentOf<Way>()({ years: whole, total: money, now: money, payments: list(wayPayment) })),
});

export const rate = named('Rate', documentOf<Rate>()({ from: day, currency: text, into: text, factor: figure }));

export const office = named(
  'Office',
  documentOf<Settings>()({
    homeCurrency: text,
    zone: text,
    numberStyle: from(({ numberStyle }: Settings) => numberStyle as string, text),
    alarmDays: list(whole),
    reminderDays: list(whole),
    remindTo: orNull(text),
    dropReasons: list(text),
  }),
);
