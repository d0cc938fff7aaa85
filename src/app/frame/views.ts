import type { Charge } from '@/core/funding';
import type {
  AccountFunding,
  ChargeDay,
  Consequence,
  Contradiction,
  EndingPrices,
  LedgerRow,
  LedgerRules,
  LifecycleStrip,
  MoveSaving,
  NextPayment,
  NotCompared,
  TodaySummary,
  Unknowns,
} from '@/core/ledger';
import type { Policy } from '@/core/lifecycle';
import type { LeftReason, MovePlan, MoveWave, PlannedMove } from '@/core/moving';
import type { YearPath } from '@/core/pricing';
import type { DropMonth, RankedName, Ranking } from '@/core/prospects';
import type { AllJudged, Judgement } from '@/core/rescue';
import type { Instant } from '@/core/time';

/** A row with its lifecycle strip and the policy of its ending, ready to be drawn. */
export interface RowView extends LedgerRow {
  readonly strip: LifecycleStrip | null;
  readonly policy: Policy;
}

export interface LedgerMeta {
  readonly revision: number;
  /** Very many names have just come, and are being read: this is the state before them. */
  readonly isBehind: boolean;
  readonly asOf: Instant;
  readonly rules: LedgerRules;
  readonly names: number;
  /** What nobody has said yet, and how much rests on it. */
  readonly unknowns: Unknowns;
  /** Names with a deadline within thirty days that costs or loses them, and that are not being dropped. */
  readonly urgent: number;
  /** Renewals and switches of auto-renew that were asked for and not confirmed. */
  readonly unconfirmed: number;
  /** What awaits the owner's answer in selling. */
  readonly selling: number;
  /** Transfers that wait for the person. */
  readonly transfers: number;
  /** What acquiring wants of the person. */
  readonly acquiring: number;
}

/** What a view of the ledger comes to on a day: how many names, and the rows of the window that was asked for. */
export interface Arranged {
  readonly total: number;
  readonly rows: readonly RowView[];
}

/** An account's funding with the names of its charges, as a screen draws it. */
export interface FundingView extends Omit<AccountFunding, 'charges' | 'lapsing'> {
  readonly charges: readonly (Charge & { readonly unicode: string; readonly ascii: string })[];
  /** How many charges there are in all; the list holds the first of them. */
  readonly chargeCount: number;
  readonly lapsing: readonly {
    readonly nameId: number;
    readonly unicode: string;
    readonly ascii: string;
    /** The least term that renews it. */
    readonly years: number;
    readonly lapsesAt: Instant;
  }[];
  readonly lapsingCount: number;
}

/** A day's charges as the line of time draws them. */
export interface ChargeDayView extends Omit<ChargeDay, 'places'> {
  /** What they come to in minor units of the home currency, as far as there are rates. */
  readonly worthMinor: number;
  /** The first of their names. */
  readonly names: readonly string[];
  readonly accountIds: readonly number[];
}

/** What needs a decision today. */
export interface TodayView {
  readonly summary: TodaySummary;
  readonly lists: readonly {
    readonly consequence: Consequence;
    readonly total: number;
    readonly rows: readonly RowView[];
  }[];
  readonly charges: readonly ChargeDayView[];
}

/** A name in danger: what to do with it, why, and what it is ranked by. */
export interface RescueRow {
  readonly row: RowView;
  readonly judgement: Judgement;
}

/** Every name judged for its next renewal: the sums over all of them, and the first rows. */
export interface AllJudgedView extends Omit<AllJudged, 'names'> {
  readonly rows: readonly RescueRow[];
}

/** Everything that Rescue shows, the dearest waiting first. */
export interface RescueView {
  readonly rows: readonly RescueRow[];
  /** In deletion: nothing can be done but watch for the day they come free. */
  readonly pendingDelete: readonly RowView[];
  /** Fresh registrations that can be deleted for a refund. */
  readonly refundable: readonly RowView[];
  readonly dropping: readonly RowView[];
}

/** A name whose setting contradicts what is wanted of it. */
export interface ContradictingRow {
  readonly row: RowView;
  readonly contradiction: Contradiction;
}

/** A name on its own page, with its neighbours in the list it was opened from. */
export interface NameView {
  readonly row: RowView;
  /** What moving it elsewhere would save. */
  readonly saving: MoveSaving | null;
  readonly place: number;
  readonly total: number;
  readonly before: string | null;
  readonly after: string | null;
}

/** What one account costs for an ending over the years that were chosen, in minor units of the office's currency. */
export interface PriceCellView {
  readonly accountId: number;
  readonly totalMinor: number | null;
  /** The first payment. */
  readonly firstMinor: number | null;
  readonly next: NextPayment | null;
  readonly condition: string | null;
  readonly notCompared: NotCompared | null;
}

export interface PriceLineView {
  readonly ending: string;
  readonly cells: readonly PriceCellView[];
}

/** One ending in full, with the cheapest payments of all for 1 to ten years. */
export interface EndingView extends EndingPrices {
  readonly best: readonly (YearPath | null)[];
}

/** A name as it is named on screen. */
export interface NamedName {
  readonly nameId: number;
  readonly ascii: string;
  readonly unicode: string;
}

/** Which names a plan of transfers is for. */
export type PlannedNames =
  | { readonly kind: 'all' }
  | { readonly kind: 'account'; readonly accountId: number }
  | { readonly kind: 'chosen'; readonly nameIds: readonly number[] };

export interface MoveView extends Omit<PlannedMove, 'row'>, NamedName {
  readonly fromId: number;
}

export interface WaveView extends Omit<MoveWave, 'moves'> {
  readonly moves: readonly MoveView[];
}

/** A plan of transfers as a screen draws it, what is left where it is by reason, the most frequent first. */
export interface PlanView extends Omit<MovePlan, 'waves' | 'left'> {
  readonly waves: readonly WaveView[];
  readonly left: readonly { readonly why: LeftReason; readonly count: number; readonly names: readonly NamedName[] }[];
}

/** What is charged in a month: how many charges, what they come to in minor units of the home currency, and the dearest. */
export interface MonthCharges {
  readonly count: number;
  readonly minor: number;
  readonly names: readonly { readonly ascii: string; readonly unicode: string; readonly minor: number }[];
}

/** A name with what its next year is worth. */
export interface RankedRow {
  readonly row: RowView;
  readonly ranked: RankedName;
}

/** How many names stand how (`STANDS`), and what dropping those that are not worth it saves. */
export interface RankingSums extends Pick<Ranking, 'counts' | 'savesMinor' | 'gainMinor'> {
  readonly total: number;
}

/** A month of the drop list with the first of its names. */
export interface DropMonthView extends Omit<DropMonth, 'places' | 'from'> {
  readonly from: Instant;
  readonly nameIds: readonly number[];
  readonly lines: readonly {
    readonly nameId: number;
    readonly ascii: string;
    readonly unicode: string;
    readonly at: Instant;
    readonly costMinor: number;
    readonly valueMinor: number;
  }[];
}
