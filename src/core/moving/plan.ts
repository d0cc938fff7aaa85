import type { ComparedMove, LedgerRow, MoveSaving, MoveWish, Projection } from '../ledger';
import { moveSavings, policyOf } from '../ledger';
import type { Policy } from '../lifecycle';
import { type Amount, sumByCurrency } from '../money';
import type { YearPath } from '../pricing';
import { bestUnderBudget } from '../rescue';
import { addDays, type Instant } from '../time';
import { movingFacts } from './facts';
import { bestMoment, groundsAgainst, lastMoment, standingAt } from './grounds';

/** What a plan of transfers is asked for. */
export interface PlanAsked extends MoveWish {
  /** The most that the transfers may cost in all, minor units of the office's currency; `null` without bound. */
  readonly budgetMinor: number | null;
  /** Names that it makes no cheaper are moved too, as many as the budget allows. */
  readonly evenIfDearer: boolean;
  /** Names that are on their way already, or sold. */
  readonly underWay?: ReadonlySet<number>;
}

/** One name that is to be moved: when and where to, and what it comes to in minor units of the office's currency. */
export interface PlannedMove {
  readonly row: LedgerRow;
  readonly accountId: number;
  /** The best instant to request it, and the last that arrives before the next charge; `null` where there is none to arrive before. */
  readonly at: Instant;
  readonly by: Instant | null;
  /** To be paid with the transfer. */
  readonly costMinor: number;
  readonly savedMinor: number;
  /** A lock is on, which the owner takes off first. */
  readonly isLocked: boolean;
  /** The charge at the old account that comes before it. */
  readonly chargedBefore: Amount | null;
}

/** Why a name is left where it is. */
export type LeftReason =
  | Exclude<MoveSaving['kind'], 'saves'>
  | 'over the budget'
  | 'cannot be transferred'
  | 'out of its term'
  | 'there already'
  | 'on its way already';

/** The moves that are requested on one day. */
export interface MoveWave {
  readonly at: Instant;
  readonly moves: readonly PlannedMove[];
  readonly costMinor: number;
  readonly savedMinor: number;
}

/** An account that names leave, in its own currency. */
export interface LeftAccount {
  readonly accountId: number;
  readonly leaving: number;
  readonly staying: number;
  /** Charges of the leaving names that still come before they go. */
  readonly charges: readonly Amount[];
  /** What is left of its balance when the last of them has gone; `null` where the balance is not known. */
  readonly balanceMinor: number | null;
}

export interface MovePlan {
  readonly waves: readonly MoveWave[];
  readonly left: readonly { readonly row: LedgerRow; readonly why: LeftReason }[];
  readonly accounts: readonly LeftAccount[];
  readonly costMinor: number;
  readonly savedMinor: number;
}

/**
 * Which names to move where and when: each weighed over the years against staying, on its best day, and of all of them the set that saves
 * most for what may be spent. Rows are those of `projection` today.
 */
export function planMoves(projection: Projection, rows: readonly LedgerRow[], asked: PlanAsked): MovePlan {
  const { index, asOf } = projection;
  const savingOf = moveSavings(index, asOf, asked);
  const possible: PlannedMove[] = [];
  const left: { row: LedgerRow; why: LeftReason }[] = [];
  for (const row of rows) {
    const move = moveOf(row, policyOf(projection, row.place), savingOf(row), asOf, asked);
    if (typeof move === 'string') left.push({ row, why: move });
    else possible.push(move);
  }
  const chosen = new Set(withinBudget(possible, asked));
  for (const [i, { row }] of possible.entries()) if (!chosen.has(i)) left.push({ row, why: 'over the budget' });
  const waves = wavesOf(
    possible.filter((_, i) => chosen.has(i)),
    asOf,
  ).map(waveWith);
  return {
    waves,
    left,
    accounts: leftAccounts(projection, waves),
    costMinor: waves.reduce((sum, { costMinor }) => sum + costMinor, 0),
    savedMinor: waves.reduce((sum, { savedMinor }) => sum + savedMinor, 0),
  };
}

function moveOf(
  row: LedgerRow,
  policy: Policy,
  saving: MoveSaving | null,
  asOf: Instant,
  { targetId, evenIfDearer, underWay }: PlanAsked,
): PlannedMove | LeftReason {
  if (underWay?.has(row.name.id)) return 'on its way already';
  if (row.name.accountId === targetId) return 'there already';
  if (saving === null) return 'out of its term';
  if (saving.kind !== 'saves' && !(saving.kind === 'nothing cheaper' && evenIfDearer)) return saving.kind;
  const facts = movingFacts(row, policy);
  const at = bestMoment(facts, asOf);
  if (at === null) return 'cannot be transferred';
  const last = lastMoment(facts);
  const { accountId, savedMinor, path }: ComparedMove = saving;
  return {
    row,
    accountId,
    at,
    by: last !== null && last >= at ? last : null,
    costMinor: paidWithMove(path),
    savedMinor,
    isLocked: standingAt(groundsAgainst(facts, asOf), asOf).some(({ mends }) => mends === 'owner'),
    chargedBefore: null,
  };
}

/** What is paid when the move is made: all that is paid today, or, where the way begins at the next charge, the transfer alone. */
function paidWithMove({ payments, nowMinor }: YearPath): number {
  const [first] = payments;
  return first?.isNow ? nowMinor : (first?.minor ?? 0);
}

function withinBudget(moves: readonly PlannedMove[], { budgetMinor, evenIfDearer }: PlanAsked): readonly number[] {
  if (budgetMinor === null) return moves.map((_, i) => i);
  const choices = moves.map(({ costMinor, savedMinor }) => ({
    cost: costMinor,
    worth: savedMinor,
    always: evenIfDearer,
  }));
  return bestUnderBudget(choices, budgetMinor);
}

/** Moves that have to wait are requested together when their best days are no further apart. */
const WAVE_DAYS = 7;

type Gathered = Pick<MoveWave, 'at' | 'moves'>;

/** What can go today goes today. What has to wait is gathered into few days: none before a name's best day, none past its last one. */
function wavesOf(moves: readonly PlannedMove[], asOf: Instant): Gathered[] {
  const today = moves.filter(({ at }) => at <= asOf);
  const waves: { from: Instant; at: Instant; by: Instant | null; moves: PlannedMove[] }[] = [];
  const waiting = moves.filter(({ at }) => at > asOf).sort((a, b) => a.at - b.at || a.row.place - b.row.place);
  for (const move of waiting) {
    const wave = waves.at(-1);
    if (wave && move.at <= addDays(wave.from, WAVE_DAYS) && (wave.by === null || move.at <= wave.by)) {
      wave.moves.push(move);
      wave.at = move.at;
      wave.by = earlier(wave.by, move.by);
    } else waves.push({ from: move.at, at: move.at, by: move.by, moves: [move] });
  }
  return today.length === 0 ? waves : [{ at: asOf, moves: today }, ...waves];
}

function earlier(one: Instant | null, other: Instant | null): Instant | null {
  if (one === null || other === null) return one ?? other;
  return one < other ? one : other;
}

/** What a wave comes to, what saves most first, and which of its names are charged where they are before it. */
function waveWith({ at, moves }: Gathered): MoveWave {
  const charged = moves.map((move): PlannedMove => {
    const { coming } = move.row;
    const isBefore = coming !== null && coming.outcome === 'pass' && coming.at < at;
    return { ...move, chargedBefore: isBefore ? coming.cost : null };
  });
  charged.sort((a, b) => b.savedMinor - a.savedMinor || a.row.place - b.row.place);
  const sum = (of: (move: PlannedMove) => number) => moves.reduce((total, move) => total + of(move), 0);
  return { at, moves: charged, costMinor: sum((one) => one.costMinor), savedMinor: sum((one) => one.savedMinor) };
}

function leftAccounts(projection: Projection, waves: readonly MoveWave[]): LeftAccount[] {
  const goesAt = new Map<number, Instant>();
  const moves = waves.flatMap((wave) => wave.moves.map((move) => ({ move, at: wave.at })));
  for (const { move, at } of moves) goesAt.set(move.row.place, at);
  const names = new Map<number, number>();
  for (const accountId of projection.names.columns.accountId) names.set(accountId, (names.get(accountId) ?? 0) + 1);
  const ids = [...new Set(moves.map(({ move }) => move.row.name.accountId))].sort((a, b) => a - b);
  return ids.map((accountId): LeftAccount => {
    const leaving = moves.filter(({ move }) => move.row.name.accountId === accountId);
    return {
      accountId,
      leaving: leaving.length,
      staying: (names.get(accountId) ?? 0) - leaving.length,
      charges: sumByCurrency(leaving.flatMap(({ move }) => move.chargedBefore ?? [])),
      balanceMinor: balanceAfter(projection, accountId, goesAt, leaving.at(-1)?.at ?? projection.asOf),
    };
  });
}

/** The balance of an account at an instant, less what it pays until then, without the charges of names that have gone before theirs. */
function balanceAfter(
  { index, charged, charges }: Projection,
  accountId: number,
  goesAt: ReadonlyMap<number, Instant>,
  until: Instant,
): number | null {
  const account = index.accounts.get(accountId);
  let balance = account?.balanceMinor ?? null;
  const methods = new Set(account?.paymentMethods.flatMap(({ kind, label }) => (kind === 'balance' ? [label] : [])));
  for (const place of charged().get(accountId)?.places ?? [])
    for (const charge of charges.of(place)) {
      if (charge.at >= until || charge.at >= (goesAt.get(place) ?? until)) break;
      if (charge.outcome !== 'pass' || !methods.has(charge.paymentMethod ?? '')) continue;
      // What a charge costs nobody knows, so what is left nobody knows either.
      if (charge.cost?.currency !== account?.currency) return null;
      balance = balance === null ? null : balance - (charge.cost?.minor ?? 0);
    }
  return balance;
}
