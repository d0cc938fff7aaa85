import { roundHalfAway, shareOf } from '../money';
import { type Refusal, refuse } from '../refusal';
import { addDays, type Instant } from '../time';
import { type Auction, standingOf } from './auction';
import { buyPrice, type Offered } from './listing';

/** What became of a figure. */
export const FIGURE_STATES = ['live', 'voided', 'accepted', 'declined', 'lapsed'] as const;
export type FigureState = (typeof FIGURE_STATES)[number];
export type Side = 'buyer' | 'owner';

/** One figure that somebody has named, in minor units of the thread's currency. */
export interface Figure {
  readonly by: Side;
  readonly minor: number;
  readonly at: Instant;
  /** From this instant on it is lapsed; `null` for no date. */
  readonly lapsesAt: Instant | null;
  readonly state: FigureState;
}

/** How long a counter stands where its giver says nothing of it: a week, by common practice. */
export const COUNTER_DAYS = 7;

/** When a counter that is given then lapses, unless another day is said. */
export function counterLapses(givenAt: Instant): Instant {
  return addDays(givenAt, COUNTER_DAYS);
}

/** How a thread stands. `waiting`: the name is promised elsewhere. */
export const THREAD_STATES = ['open', 'waiting', 'accepted', 'declined', 'lapsed', 'withdrawn'] as const;
export type ThreadState = (typeof THREAD_STATES)[number];

/** Something may still come of these. */
export const OPEN_THREADS: readonly ThreadState[] = ['open', 'waiting'];

/** The best figure of these is an offer for the name. */
export const OFFERING_THREADS: readonly ThreadState[] = [...OPEN_THREADS, 'accepted'];

/** Figures that stand, or have been taken. */
export const STANDING_FIGURES: readonly FigureState[] = ['live', 'accepted'];

/** How an offer is received: below the minimum it is declined at once, from the buy-now price on it is a purchase at that. */
export type Reception =
  | { readonly kind: 'declined' }
  | { readonly kind: 'open' }
  | { readonly kind: 'purchase'; readonly minor: number };

/**
 * What a new offer means for a listing. One that equals the minimum is open. `auction` is the one of the name that runs: with its
 * first bid nothing is answered beside it, only its own buy-now price may still be taken, as long as that is open.
 */
export function receive(minor: number, offered: Offered, auction: Auction | null): Reception {
  const price = buyPrice(offered);
  const isAuction = offered.kind === 'auction';
  const hasBids = auction !== null && auction.bids.length > 0;
  const mayBuy = isAuction ? auction !== null && standingOf(auction).buyNowOpen : !hasBids;
  if (mayBuy && price !== null && minor >= price) return { kind: 'purchase', minor: price };
  if (hasBids) return { kind: 'open' };
  const { minimum } = offered.prices;
  if (offered.kind === 'fixed price' || offered.kind === 'auction') return { kind: 'declined' };
  return minimum !== null && minor < minimum ? { kind: 'declined' } : { kind: 'open' };
}

/** The live figure of a thread at an instant; one that has lapsed is none. */
export function liveFigure(figures: readonly Figure[], at: Instant): Figure | null {
  const last = figures.findLast(({ state }) => state === 'live');
  return last && (last.lapsesAt === null || at < last.lapsesAt) ? last : null;
}

/** Refuses what `side` may not do to the live figure: only who received a figure accepts or declines it. */
export function refuseAnswer(figures: readonly Figure[], side: Side, at: Instant): Refusal | null {
  const live = figures.findLast(({ state }) => state === 'live');
  if (!live)
    return refuse('no-live-figure', 'There is no figure to answer in this thread any more. Load the page again.');
  if (live.lapsesAt !== null && at >= live.lapsesAt) return refuse('figure-lapsed', 'This figure has lapsed.');
  if (live.by === side) return refuse('own-figure', 'Your own figure is on the table: the other side answers it.');
  return null;
}

/** The middle of the last figures of both sides, rounded to whole units; `null` while one has not spoken. */
export function middleOf(figures: readonly Figure[], unitMinor: number): number | null {
  const last = (by: Side) => figures.findLast((figure) => figure.by === by)?.minor;
  const [buyer, owner] = [last('buyer'), last('owner')];
  return buyer === undefined || owner === undefined ? null : Math.round((buyer + owner) / 2 / unitMinor) * unitMinor;
}

/** How offers on a name are answered without the owner, when that is wished. */
export interface AnswerRule {
  /** Accept an offer of at least this share of the asking price, 0 to 1 in steps of a ten-thousandth; `null` never. */
  readonly acceptFrom: number | null;
  /** Counter an offer below that with this share of the asking price; `null` never. */
  readonly counterWith: number | null;
  /** Days that such a counter stands. */
  readonly counterDays: number;
}

export type RuledAnswer = { readonly kind: 'accept' } | { readonly kind: 'counter'; readonly minor: number } | null;

/** The answer by rule to a buyer's figure, or `null` when the owner has to answer. A rule counters once in a thread. */
export function answerByRule(
  rule: AnswerRule,
  minor: number,
  askingMinor: number | null,
  hasCountered: boolean,
  unitMinor: number,
): RuledAnswer {
  if (askingMinor === null) return null;
  if (rule.acceptFrom !== null && minor >= shareOf(askingMinor, rule.acceptFrom)) return { kind: 'accept' };
  if (rule.counterWith === null || hasCountered) return null;
  const counter = roundHalfAway(shareOf(askingMinor, rule.counterWith) / unitMinor) * unitMinor;
  return counter <= minor ? { kind: 'accept' } : { kind: 'counter', minor: counter };
}

/** Half way between the buyer's figure and what is asked, in whole units, while the owner has named none; `null` where there is no way between. */
export function betweenAsking(buyer: number | null, asking: number | null, unitMinor: number): number | null {
  return buyer === null || asking === null || asking <= buyer
    ? null
    : Math.round((buyer + asking) / 2 / unitMinor) * unitMinor;
}
