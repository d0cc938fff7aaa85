import type { LedgerDay } from '../ledger';
import {
  type Assumptions,
  askingFor,
  discountOf,
  expectedProceeds,
  HORIZON_YEARS,
  type KeepValue,
  keepValue,
} from '../odds';
import type { Instant } from '../time';
import { homeCosts } from './homeCost';
import { monthScale } from './months';
import { type BookAsked, type OfferBook, type OfferGroup, offerBook, offeredAt } from './offerBook';
import { keepCharges } from './schedule';

/** What keeping a name costs, year after year from its next charge on, in minor units of the home currency. */
export interface YearCosts {
  readonly firstAt: Instant;
  readonly costs: readonly number[];
}

/** Whether a name is worth its next year, with all that this rests on. Amounts are minor units of the home currency. */
export interface NameWorth {
  readonly keep: KeepValue;
  readonly next: YearCosts;
  /** What a sale is expected to leave after fees. */
  readonly proceeds: number;
}

/** What names are judged by: the office's assumptions, what is known of its offers, and the ledger as it stands. */
export interface Valuing {
  readonly book: OfferBook;
  readonly today: LedgerDay;
  readonly assumptions: Assumptions;
  /** The years of a name from its next charge on; `null` where the end of its term or a price is not known, or nothing keeps it. */
  costsOf(place: number): YearCosts | null;
  /** What keeping a name on offer is worth; `null` for one that is not, or whose costs are not known. */
  worthOf(place: number): NameWorth | null;
  /** The least asking price worth another year, at an unchanged chance; `null` where no price is. */
  leastAskingOf(place: number, worth: NameWorth): number | null;
}

/** The one judge of names: Rescue, "which should I drop?" and Prospects ask it. */
export function valuing(today: LedgerDay, asked: BookAsked, book: OfferBook = offerBook(today, asked)): Valuing {
  const { assumptions } = asked;
  const known = book;
  const scale = monthScale(today.projection.asOf);
  const chargesOf = keepCharges(today, scale);
  const toHome = homeCosts(today.projection, assumptions.unknownPriceMinor);
  const discount = discountOf(assumptions);

  const costsOf = (place: number): YearCosts | null => {
    const costs: number[] = [];
    let first: Instant | null = null;
    let isKnown = true;
    chargesOf(place, (at, cost, _, years) => {
      first ??= at;
      const minor = toHome(cost);
      if (minor === null) isKnown = false;
      // A term of several years costs nothing in those that follow. Years go by terms: the first may have begun before today.
      costs.push(minor ?? 0, ...new Array<number>(years - 1).fill(0));
    });
    if (first === null || !isKnown) return null;
    return { firstAt: first, costs: costs.slice(0, HORIZON_YEARS) };
  };

  const worthOf = (place: number): NameWorth | null => {
    const i = known.at[place] as number;
    const next = i < 0 || known.asking[i] === 0 ? null : costsOf(place);
    if (!next) return null;
    const { rate } = known.groups[known.group[i] as number] as OfferGroup;
    const proceeds = expectedProceeds(offeredAt(known, i), known.share);
    return {
      next,
      proceeds,
      keep: keepValue({ costs: next.costs, proceeds, rate, factor: known.factor[i] as number, discount }),
    };
  };

  return {
    book: known,
    today,
    assumptions,
    costsOf,
    worthOf,
    leastAskingOf: (place, { keep }) => {
      const i = known.at[place] as number;
      if (i < 0 || !Number.isFinite(keep.leastProceeds)) return null;
      const { fees } = offeredAt(known, i);
      return askingFor(keep.leastProceeds, { minimumMinor: known.minimum[i] as number, fees }, known.share);
    },
  };
}
