import { type LedgerDay, type LedgerView, matchingPlaces } from '../ledger';
import { convert, minorFactor, type Rate, roundHalfAway } from '../money';
import {
  type Assumptions,
  afterSales,
  factorFor,
  type OfferedAt,
  type PriceShare,
  type SaleRate,
  shareFromSales,
  USUAL_SHARE,
} from '../odds';
import { feesIn, type MarketplaceFees } from '../selling';
import { type Day, dayOf, type Instant } from '../time';
import type { OfferFacts } from './data';
import { type Grouped, groupOf } from './groups';
import { type MonthScale, monthPlace, monthScale } from './months';

/** Names that share a chance of sale, and what that chance rests on. */
export interface OfferGroup {
  readonly key: string;
  /** How many names of the ledger are on offer in it. */
  readonly names: number;
  /** Own sales, and years in which its names were on offer, each times its factor: those sold and dropped too. */
  readonly seen: SaleRate;
  /** Whether what was seen is counted, and so what λ is held to be. */
  readonly rate: SaleRate;
}

/** Where a figure comes from. */
export type Origin = 'said' | 'own sales' | 'usual';

/** Every name that may be sold, with all that its sale depends on. Amounts are minor units of the home currency. */
export interface OfferBook {
  /** Places of the ledger, by group, then by factor, then in order. */
  readonly places: Int32Array;
  readonly group: Uint16Array;
  readonly factor: Float64Array;
  /** 1 where its owner has said how likely a name sells: its offers move nothing then. */
  readonly isSaid: Uint8Array;
  /** 0 where nothing is asked, and nothing sold. */
  readonly asking: Float64Array;
  readonly minimum: Float64Array;
  /** From where in months it can be seen by buyers: at once, or when its listing is through review. */
  readonly from: Float64Array;
  /** Which of `feeList` a sale costs. */
  readonly fees: Uint16Array;
  readonly feeList: readonly MarketplaceFees[];
  readonly groups: readonly OfferGroup[];
  readonly share: PriceShare;
  readonly shareFrom: Origin;
  /** How many own sales with an asking price there are. */
  readonly pricedSales: number;
  /** Where each name of the ledger stands in the book; below nothing where it is not on offer. */
  readonly at: Int32Array;
  /** Offers made within a year, by place. */
  readonly offers: ReadonlyMap<number, number>;
  /** Visits of windows within 90 days, by place. */
  readonly visits: ReadonlyMap<number, number>;
  /** Names that are asked for in a currency without a rate, and names that are being sold: in the book they are not. */
  readonly noRate: number;
  readonly selling: ReadonlySet<number>;
}

/** What the book is made of, beside the ledger. */
export interface BookAsked {
  readonly facts: OfferFacts;
  readonly assumptions: Assumptions;
  /** The saved view that groups are made by; `null` for another grouping. */
  readonly view: LedgerView | null;
  /** Names by id that nobody asks anything for, and that are thought of being offered: in the book, at a price of 0. */
  readonly thought?: ReadonlySet<number>;
}

interface Found {
  readonly place: number;
  readonly group: number;
  factor: number;
  isSaid: boolean;
  readonly asking: number;
  readonly minimum: number;
  readonly from: number;
  readonly fees: number;
}

function seenFrom({ listed }: OfferFacts, i: number | undefined, scale: MonthScale): number {
  const at = i === undefined ? Number.NaN : (listed.seenFrom[i] as number);
  return Number.isNaN(at) ? scale.start : Math.max(scale.start, monthPlace(scale, at));
}

/** Every name with an asking price that is not being sold already, by groups with what is held of their chance. */
export function offerBook(today: LedgerDay, { facts, assumptions, view, thought }: BookAsked): OfferBook {
  const { names, index, asOf } = today.projection;
  const { homeCurrency, rates } = index.rules;
  const day = dayOf(asOf);
  const own = by(facts, (id) => names.placeOf(id));
  const inView = view ? new Set(matchingPlaces(today, view)) : null;
  const keyOf = (name: Grouped) => groupOf(assumptions.grouping, name, homeCurrency);
  const fees = feesOf(facts, assumptions, homeCurrency, rates, asOf);
  const groups = new Groups(assumptions);
  const scale = monthScale(asOf);
  const found: Found[] = [];
  let noRate = 0;
  for (let place = 0; place < names.length; place += 1) {
    const asking = names.asking(place);
    if (asking === null && !thought?.has(names.columns.id[place] as number)) continue;
    const factorInto = asking ? minorFactor(asking.currency, homeCurrency, rates, day) : 1;
    if (factorInto === null) {
      noRate += 1;
      continue;
    }
    const askingMinor = roundHalfAway((asking?.minor ?? 0) * factorInto);
    const grouped = {
      ending: names.ending(place),
      tags: names.tags(place),
      askingMinor,
      isInView: inView?.has(place) ?? false,
    };
    const group = groups.of(keyOf(grouped));
    if (own.selling.has(place)) {
      groups.seen(keyOf(grouped), 0, own.years.get(place) ?? 0);
      continue;
    }
    const listed = own.listed.get(place);
    const minimum = listed === undefined ? 0 : minimumOf(facts, listed, homeCurrency, rates, day);
    const isVisited = (own.visits.get(place) ?? 0) >= assumptions.visitsFrom;
    const offered = (own.offers.has(place) ? assumptions.offerFactor : 1) * (isVisited ? assumptions.visitFactor : 1);
    found.push({
      place,
      group,
      factor: offered,
      isSaid: false,
      asking: askingMinor,
      minimum: Math.min(askingMinor, minimum),
      from: seenFrom(facts, listed, scale),
      fees: listed === undefined ? 0 : (facts.listed.marketplace[listed] as number) + 1,
    });
    groups.offer(group, asking === null ? 0 : 1, offered * (own.years.get(place) ?? 0));
  }
  for (const gone of facts.gone) {
    const asked = gone.asking && convert(gone.asking, homeCurrency, rates, day);
    groups.seen(keyOf({ ...gone, askingMinor: asked?.minor ?? null, isInView: false }), 0, gone.years);
  }
  for (const sale of facts.sales) {
    const asked = sale.askedMinor === null ? sale.price : { ...sale.price, minor: sale.askedMinor };
    const inHome = convert(asked, homeCurrency, rates, sale.day);
    groups.seen(keyOf({ ...sale, askingMinor: inHome?.minor ?? null, isInView: false }), 1, 0);
  }
  const all = groups.all();
  for (const one of found) {
    const chance = names.columns.sparse.saleChance[one.place];
    // What the owner said of a name outranks what its offers say.
    if (chance === undefined || chance >= 1) continue;
    one.factor = factorFor((all[one.group] as OfferGroup).rate, chance);
    one.isSaid = true;
  }
  const shares = facts.sales.flatMap(({ price, askedMinor }) => (askedMinor ? [price.minor / askedMinor] : []));
  return {
    ...columnsOf(found, names.length),
    feeList: fees,
    groups: all,
    ...shareOf(assumptions, shares),
    pricedSales: shares.length,
    offers: own.offers,
    visits: own.visits,
    noRate,
    selling: new Set(own.selling.keys()),
  };
}

/** The names that were found in the order of the book, a column for each figure. */
function columnsOf(found: Found[], names: number) {
  found.sort((a, b) => a.group - b.group || a.factor - b.factor || a.place - b.place);
  const at = new Int32Array(names).fill(-1);
  for (const [i, { place }] of found.entries()) at[place] = i;
  return {
    places: Int32Array.from(found, ({ place }) => place),
    group: Uint16Array.from(found, ({ group }) => group),
    factor: Float64Array.from(found, ({ factor }) => factor),
    isSaid: Uint8Array.from(found, ({ isSaid }) => Number(isSaid)),
    asking: Float64Array.from(found, ({ asking }) => asking),
    minimum: Float64Array.from(found, ({ minimum }) => minimum),
    from: Float64Array.from(found, ({ from }) => from),
    fees: Uint16Array.from(found, ({ fees }) => fees),
    at,
  };
}

/** A name of the book as it is offered, with the office's share of its price or its marketplace's. */
export function offeredAt(book: OfferBook, i: number, askingMinor = book.asking[i] as number): OfferedAt {
  return {
    askingMinor,
    minimumMinor: Math.min(askingMinor, book.minimum[i] as number),
    fees: book.feeList[book.fees[i] as number] as MarketplaceFees,
  };
}

/** The share that is paid, and where that comes from: what was said, else five own sales at the least, else the usual. */
function shareOf({ medianShare, shareSigma, countOwnSales }: Assumptions, shares: readonly number[]) {
  const own = countOwnSales ? shareFromSales(shares) : null;
  const base = own ?? USUAL_SHARE;
  const share = { median: medianShare ?? base.median, sigma: shareSigma ?? base.sigma };
  const shareFrom: Origin = medianShare !== null || shareSigma !== null ? 'said' : own ? 'own sales' : 'usual';
  return { share, shareFrom };
}

/** Groups as they are met, and what was seen in each. */
class Groups {
  readonly #keys = new Map<string, number>();
  readonly #names: number[] = [];
  readonly #sales: number[] = [];
  readonly #years: number[] = [];
  constructor(readonly assumptions: Assumptions) {}

  of(key: string): number {
    let group = this.#keys.get(key);
    if (group === undefined) {
      group = this.#keys.size;
      this.#keys.set(key, group);
      this.#names.push(0);
      this.#sales.push(0);
      this.#years.push(0);
    }
    return group;
  }

  offer(group: number, names: number, years: number): void {
    this.#names[group] = (this.#names[group] as number) + names;
    this.#years[group] = (this.#years[group] as number) + years;
  }

  seen(key: string, sales: number, years: number): void {
    const group = this.of(key);
    this.#sales[group] = (this.#sales[group] as number) + sales;
    this.#years[group] = (this.#years[group] as number) + years;
  }

  all(): OfferGroup[] {
    const { chance, nameYears, countOwnSales } = this.assumptions;
    const assumed: SaleRate = { sales: chance * nameYears, nameYears };
    return [...this.#keys].map(([key, group]) => {
      const seen = { sales: this.#sales[group] as number, nameYears: this.#years[group] as number };
      return {
        key,
        names: this.#names[group] as number,
        seen,
        rate: countOwnSales ? afterSales(assumed, seen) : assumed,
      };
    });
  }
}

/** What is known by name id, by place of the ledger. */
function by(facts: OfferFacts, placeOf: (id: number) => number | undefined) {
  const map = <T>(ids: Int32Array, of: (i: number) => T) => {
    const found = new Map<number, T>();
    for (let i = 0; i < ids.length; i += 1) {
      const place = placeOf(ids[i] as number);
      if (place !== undefined) found.set(place, of(i));
    }
    return found;
  };
  return {
    years: map(facts.since.nameId, (i) => facts.since.years[i] as number),
    listed: map(facts.listed.nameId, (i) => i),
    offers: map(facts.offers.nameId, (i) => facts.offers.count[i] as number),
    visits: map(facts.visits.nameId, (i) => facts.visits.count[i] as number),
    selling: map(facts.selling, () => true),
  };
}

function minimumOf(facts: OfferFacts, i: number, home: string, rates: readonly Rate[], day: Day): number {
  const minor = facts.listed.minimumMinor[i] as number;
  if (Number.isNaN(minor)) return 0;
  const factor = minorFactor(facts.currencies[facts.listed.currency[i] as number] ?? home, home, rates, day);
  return factor === null ? 0 : roundHalfAway(minor * factor);
}

/** What a sale costs: the office's own assumption first, then each marketplace's, in the home currency. A listing's own fee is paid before. */
function feesOf(
  facts: OfferFacts,
  { commission }: Assumptions,
  home: string,
  rates: readonly Rate[],
  at: Instant,
): MarketplaceFees[] {
  const usual: MarketplaceFees = {
    percent: Math.round(commission * 1e6) / 1e4,
    floorMinor: 0,
    steps: [],
    saleFeeMinor: 0,
    listingFeeMinor: 0,
  };
  return [
    usual,
    ...facts.marketplaces.map((terms) => feesIn({ ...terms, listingFeeMinor: 0 }, home, rates, at) ?? usual),
  ];
}
