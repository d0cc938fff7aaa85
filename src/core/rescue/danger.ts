import { type LedgerRow, lossPerDay, type Worth } from '../ledger';
import { type Amount, convert, sumByCurrency } from '../money';
import type { Valuing } from '../prospects';
import { dayOf, type Instant } from '../time';
import { bestUnderBudget } from './budget';
import { type Judgement, judge, needsRescue } from './verdict';

/** A name in danger with what is recommended for it. */
export interface InDanger {
  readonly row: LedgerRow;
  readonly judgement: Judgement;
}

/** The names in danger: whose waiting is dearest first, then whose deadline is nearest. */
export function namesInDanger(rows: readonly LedgerRow[], asOf: Instant, valuing: Valuing, worth: Worth): InDanger[] {
  return rows
    .filter((row) => needsRescue(row, asOf))
    .map((row) => ({ row, judgement: judge(row, valuing), rank: lossPerDay(row, asOf, worth) }))
    .sort((a, b) => b.rank - a.rank || (a.row.deadline?.at ?? Infinity) - (b.row.deadline?.at ?? Infinity))
    .map(({ row, judgement }) => ({ row, judgement }));
}

/** What the judgements of many names come to. */
export interface AllJudged {
  /** What should be let go first, by what it costs over what it may bring, then the undecided by what they cost, then the rest. */
  readonly names: readonly InDanger[];
  readonly drop: number;
  readonly undecided: number;
  readonly keep: number;
  /** What a year of those to be dropped costs, by currency. */
  readonly saving: readonly Amount[];
}

/** Judges every name that is in its term for its next renewal, whether it is in danger or not: which of mine should I drop? */
export function judgeAll(rows: readonly LedgerRow[], valuing: Valuing): AllJudged {
  const judged = rows.flatMap((row) => {
    const isOwn =
      row.name.purpose !== 'drop' && (row.phase === 'term' || row.phase === 'refundable' || row.phase === 'late');
    if (!isOwn) return [];
    const judgement = judge(row, valuing);
    const { verdict, value } = judgement;
    const net = value ? -value.minor : 0;
    return [{ row, judgement, order: verdict === 'drop' ? 0 : verdict === 'undecided' ? 1 : 2, net }];
  });
  judged.sort((a, b) => a.order - b.order || b.net - a.net || a.row.place - b.row.place);
  const count = (order: number) => judged.filter((one) => one.order === order).length;
  return {
    names: judged.map(({ row, judgement }) => ({ row, judgement })),
    drop: count(0),
    undecided: count(1),
    keep: count(2),
    saving: sumByCurrency(judged.flatMap(({ order, row }) => (order === 0 ? (row.costs.perYear ?? []) : []))),
  };
}

/**
 * The ids of the best set of names in danger under a budget, in minor units of one currency: what must be kept first, then what
 * brings most over its cost. Names whose cost is not known or in another currency, and those that the owner drops, stay out.
 */
export function bestSet(
  rows: readonly LedgerRow[],
  asOf: Instant,
  valuing: Valuing,
  budget: { readonly currency: string; readonly minor: number },
): number[] {
  const { rates } = valuing.today.projection.index.rules;
  const affordable = rows.flatMap((row) => {
    if (!needsRescue(row, asOf)) return [];
    const { verdict, cost, value, always } = judge(row, valuing);
    const isDropped = verdict === 'drop' && row.name.rescue === 'drop';
    if (cost === null || cost.currency !== budget.currency || isDropped) return [];
    const worth = (value && convert(value, budget.currency, rates, dayOf(asOf))?.minor) ?? -cost.minor;
    return [{ id: row.name.id, choice: { cost: cost.minor, worth, always } }];
  });
  const taken = bestUnderBudget(
    affordable.map(({ choice }) => choice),
    budget.minor,
  );
  return taken.flatMap((place) => affordable[place]?.id ?? []);
}
