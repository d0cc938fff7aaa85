import { type Refusal, refuse } from '../refusal';
import { addDays, type Instant } from '../time';

/** The stages of a sale in their order, and its ways out. */
export const SALE_STAGES = ['agreed', 'money held', 'buyer known', 'handed over', 'arrived', 'done'] as const;
export const SALE_EXITS = ['not paid', 'refused', 'dispute'] as const;
export type SaleStage = (typeof SALE_STAGES)[number] | (typeof SALE_EXITS)[number];

/** Who has to act. */
export type Turn = 'buyer' | 'owner' | 'marketplace' | 'nobody';

interface StageRule {
  readonly turn: Turn;
  /** Days until the next stage is due; `null` when none is. */
  readonly days: number | null;
  readonly next: readonly SaleStage[];
}

const RULES: Readonly<Record<SaleStage, StageRule>> = {
  agreed: { turn: 'buyer', days: 7, next: ['money held', 'not paid', 'refused'] },
  'money held': { turn: 'buyer', days: 5, next: ['buyer known', 'refused', 'dispute'] },
  'buyer known': { turn: 'owner', days: 3, next: ['handed over', 'refused', 'dispute'] },
  'handed over': { turn: 'buyer', days: 7, next: ['arrived', 'dispute'] },
  arrived: { turn: 'marketplace', days: 5, next: ['done', 'dispute'] },
  done: { turn: 'nobody', days: null, next: [] },
  'not paid': { turn: 'nobody', days: null, next: [] },
  refused: { turn: 'nobody', days: null, next: [] },
  dispute: { turn: 'marketplace', days: null, next: ['money held', 'handed over', 'arrived', 'refused'] },
};

/** Whose turn it is at a stage. */
export function turnAt(stage: SaleStage): Turn {
  return RULES[stage].turn;
}

/** Until when whoever is to act should have acted. */
export function dueAt(stage: SaleStage, since: Instant): Instant | null {
  const { days } = RULES[stage];
  return days === null ? null : addDays(since, days);
}

/** The stages that may follow. */
export function nextStages(stage: SaleStage): readonly SaleStage[] {
  return RULES[stage].next;
}

/** Nothing more comes of a sale, and the name is free for another: it was not paid, or the handover was refused. */
export const FAILED_STAGES: readonly SaleStage[] = ['not paid', 'refused'];

/** Nothing more happens in a sale. */
export const OVER_STAGES: readonly SaleStage[] = ['done', ...FAILED_STAGES];

/** The owner hands over, or settles. */
export const AWAITING_STAGES: readonly SaleStage[] = ['buyer known', 'dispute'];

export function hasFailed(stage: SaleStage): boolean {
  return FAILED_STAGES.includes(stage);
}

/** Refuses a step that does not follow; `null` when it does. */
export function refuseStage(from: SaleStage, to: SaleStage): Refusal | null {
  return nextStages(from).includes(to)
    ? null
    : refuse('stage-out-of-order', `A sale that is at “${from}” does not go on to “${to}”.`);
}

/** How a name goes to its buyer. */
export const HANDOVERS = ['push', 'transfer'] as const;
export type Handover = (typeof HANDOVERS)[number];
