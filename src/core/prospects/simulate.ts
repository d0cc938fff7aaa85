import { roundHalfAway } from '../money';
import { isPlainFee, type SaleRate, shareSteps } from '../odds';
import { netProceedsOf } from '../selling';
import { type Course, certainCosts, heldUntil } from './course';
import { HORIZON_MONTHS, type MonthScale } from './months';
import type { OfferBook, OfferGroup } from './offerBook';
import { profilesOf, UnpaidTally } from './profiles';
import { gammaDraw, type Stream, streamOf, uniform } from './streams';

/** What is played, how often, and by which seed. */
export interface Simulation {
  readonly book: OfferBook;
  readonly courses: readonly Course[];
  readonly scale: MonthScale;
  /** Money at hand today, minor units of the home currency. */
  readonly openingMinor: number;
  readonly seed: number;
  readonly paths: number;
}

/** What came of a course on every path. */
export interface Outcome {
  readonly label: string;
  readonly paths: number;
  readonly openingMinor: number;
  /** The balance at the end of each month on each path: month after month, in each all paths. Minor units. */
  readonly balances: Float64Array;
  /** Names sold on each path up to the end of each year from now: year after year. */
  readonly sold: Int32Array;
  /** The month of the first sale on each path; `HORIZON_MONTHS` for none. */
  readonly firstSale: Uint8Array;
}

const YEARS = HORIZON_MONTHS / 12;

/** A course while it is played; its columns stand here, where the innermost loop finds them. */
interface OnCourse {
  readonly tally: UnpaidTally;
  readonly asking: Float64Array;
  readonly pace: Float64Array | null;
  /** By name of the book: where in months it is given up. */
  readonly until: Float64Array;
  readonly certain: Float64Array;
  readonly outcome: Outcome;
  /** Of the path that is being played. */
  readonly cash: Float64Array;
}

/** Names of one group with one factor: they stand in one line. */
interface Segment {
  readonly group: number;
  readonly from: number;
  readonly count: number;
  readonly factor: number;
  /** The greatest pace of a name in it on any course: at this events are drawn, and by a mark thinned. */
  readonly pace: number;
}

/**
 * Plays courses over ten years on the same random numbers, path after path, and tells how many are done; what it returns is what came of
 * each course. One λ is drawn for each path and group. The names of a group stand in a line, each as long as it may be on offer; along it
 * one steps by exponential variables, and a hit is a sale: of the name on which it falls, in the month in which it falls. What falls on a
 * name after it was given up or sold is passed over, so that courses only choose among the same events. In each month charges come first,
 * then sales.
 */
export function* simulate(asked: Simulation): Generator<number, Outcome[], void> {
  const { book, courses, scale, openingMinor, seed, paths } = asked;
  const played = courses.map((course) => onCourse(course, asked));
  const segments = segmentsOf(book, courses);
  const terms = saleTerms(book);
  for (let path = 0; path < paths; path += 1) {
    for (const { cash } of played) cash.fill(0);
    let group = -1;
    let stream: Stream | null = null;
    let lambda = 0;
    for (const segment of segments) {
      if (segment.group !== group || stream === null) {
        group = segment.group;
        stream = streamOf(seed, path, group);
        lambda = drawRate(stream, (book.groups[group] as OfferGroup).rate);
      }
      playSegment(segment, lambda, stream, book, terms, played, scale.start, path);
    }
    for (const one of played) settle(one, path, openingMinor);
    yield path + 1;
  }
  return played.map(({ outcome }) => outcome);
}

function onCourse(course: Course, { book, scale, openingMinor, paths }: Simulation): OnCourse {
  const outcome: Outcome = {
    label: course.label,
    paths,
    openingMinor,
    balances: new Float64Array(HORIZON_MONTHS * paths),
    sold: new Int32Array(YEARS * paths),
    firstSale: new Uint8Array(paths).fill(HORIZON_MONTHS),
  };
  const until = Float64Array.from(book.places, (place) => heldUntil(course, place, scale));
  const { asking, pace } = course;
  const tally = new UnpaidTally(profilesOf(course, book));
  return { tally, asking, pace, until, certain: certainCosts(course), outcome, cash: new Float64Array(HORIZON_MONTHS) };
}

function segmentsOf({ places, group, factor }: OfferBook, courses: readonly Course[]): Segment[] {
  const segments: Segment[] = [];
  for (let from = 0; from < places.length; ) {
    let to = from;
    let pace = 0;
    for (; to < places.length && group[to] === group[from] && factor[to] === factor[from]; to += 1)
      for (const course of courses) pace = Math.max(pace, course.pace?.[to] ?? 1);
    segments.push({ group: group[from] as number, from, count: to - from, factor: factor[from] as number, pace });
    from = to;
  }
  return segments;
}

/** λ of a group on a path, in a month. Beyond all doubt where nothing is believed in more firmly than a rate can say. */
function drawRate(stream: Stream, { sales, nameYears }: SaleRate): number {
  if (sales === 0) return 0;
  return (Number.isFinite(sales) ? gammaDraw(stream, sales) / nameYears : sales) / 12;
}

/** The share of the asking price that is paid comes in so many equally likely steps. */
const SHARE_BITS = 14;

/** What a sale of each name leaves, worked out before the paths are played. */
interface SaleTerms {
  /** S at each of its steps. */
  readonly shares: Float64Array;
  /** What is left of a unit of the price of each name, and what goes off it besides; below nothing where its fees have steps or a floor. */
  readonly left: Float64Array;
  readonly off: Float64Array;
}

function saleTerms({ fees, feeList, share }: OfferBook): SaleTerms {
  const plain = feeList.map(isPlainFee);
  return {
    shares: shareSteps(share, 2 ** SHARE_BITS),
    left: Float64Array.from(fees, (which) => (plain[which] ? 1 - (feeList[which]?.percent ?? 0) / 100 : -1)),
    off: Float64Array.from(
      fees,
      (which) => (feeList[which]?.saleFeeMinor ?? 0) + (feeList[which]?.listingFeeMinor ?? 0),
    ),
  };
}

/** What a sale leaves of what is asked, minor units, rounded once. */
function proceedsOf(book: OfferBook, { left, off }: SaleTerms, name: number, asking: number, share: number): number {
  const price = Math.min(asking, Math.max(Math.min(asking, book.minimum[name] as number), asking * share));
  const rest = left[name] as number;
  if (rest >= 0) return roundHalfAway(price * rest) - (off[name] as number);
  return netProceedsOf(roundHalfAway(price), book.feeList[book.fees[name] as number] as (typeof book.feeList)[number])
    .proceedsMinor;
}

function playSegment(
  { from: firstName, count, factor, pace }: Segment,
  lambda: number,
  stream: Stream,
  book: OfferBook,
  terms: SaleTerms,
  played: readonly OnCourse[],
  start: number,
  path: number,
): void {
  const length = HORIZON_MONTHS - start;
  const rate = lambda * factor * pace;
  // No number is no rate either: nothing would end the line.
  if (!(rate > 0)) return;
  // Which courses are done with the name that is being passed, a bit for each.
  let standing = -1;
  let gone = 0;
  const all = (1 << played.length) - 1;
  const end = count * length;
  let at = 0;
  for (;;) {
    at += -Math.log(uniform(stream)) / rate;
    if (at >= end) return;
    const index = Math.min(count - 1, Math.floor(at / length));
    const name = firstName + index;
    if (index !== standing) {
      standing = index;
      gone = 0;
    }
    const place = start + at - index * length;
    const from = book.from[name] as number;
    if (place < from) {
      // Nobody sees it yet: what comes is as far from there as from anywhere.
      at = index * length + from - start;
      continue;
    }
    const share = terms.shares[stream.next() >>> (32 - SHARE_BITS)] as number;
    const mark = pace === 1 ? 0 : uniform(stream) * pace;
    let asked = -1;
    let proceeds = 0;
    for (let c = 0; c < played.length; c += 1) {
      const one = played[c] as OnCourse;
      if (gone & (1 << c)) continue;
      const asking = one.asking[name] as number;
      if (asking === 0 || place >= (one.until[name] as number)) gone |= 1 << c;
      else if (mark < (one.pace === null ? 1 : (one.pace[name] as number))) {
        gone |= 1 << c;
        if (asking !== asked) {
          asked = asking;
          proceeds = proceedsOf(book, terms, name, asking, share);
        }
        sell(one, name, Math.min(HORIZON_MONTHS - 1, Math.floor(place)), proceeds, path);
      }
    }
    if (gone === all) at = (index + 1) * length;
  }
}

/** A sale: its proceeds come in, and what would have been charged in later months is not. */
function sell({ tally, cash, outcome }: OnCourse, name: number, month: number, proceeds: number, path: number): void {
  const { paths, sold, firstSale } = outcome;
  cash[month] = (cash[month] as number) + proceeds;
  tally.sell(name, month);
  const year = Math.floor(month / 12) * paths + path;
  sold[year] = (sold[year] as number) + 1;
  if (month < (firstSale[path] as number)) firstSale[path] = month;
}

/** Adds a path up: the balance at the end of each month. */
function settle({ cash, certain, tally, outcome }: OnCourse, path: number, openingMinor: number): void {
  tally.payBack(cash);
  const { balances, sold, paths } = outcome;
  let balance = openingMinor;
  for (let month = 0; month < HORIZON_MONTHS; month += 1) {
    balance += (cash[month] as number) - (certain[month] as number);
    balances[month * paths + path] = balance;
  }
  for (let year = 1; year < YEARS; year += 1)
    sold[year * paths + path] = (sold[year * paths + path] as number) + (sold[(year - 1) * paths + path] as number);
}

/** Plays all paths at once, where nobody waits. */
export function simulated(asked: Simulation): Outcome[] {
  const steps = simulate(asked);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}
