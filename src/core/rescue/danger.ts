import { type LedgerRow, lossPerDay, type SaleOdds, type Worth } from '../ledger';
import type { Instant } from '../time';
import { bestUnderBudget } from './budget';
import { type Judgement, judge, needsRescue } from './verdict';

/** A name in danger with what is recommended for it. */
export interface InDanger {
  readonly row: LedgerRow;
  readonly judgement: Judgement;
}

/** The names in danger: whose waiting is dearest first, then whose deadline is nearest. */
export function namesInDanger(rows: readonly LedgerRow[], asOf: Instant, odds: SaleOdds, worth: Worth): InDanger[] {
  return rows
    .filter((row) => needsRescue(row, asOf))
    .map((row) => ({ row, judgement: judge(row, odds), rank: lossPerDay(row, asOf, worth) }))
    .sort((a, b) => b.rank - a.rank || (a.row.deadline?.at ?? Infinity) - (b.row.deadline?.at ?? Infinity))
    .map(({ row, judgement }) => ({ row, judgement }));
}

/**
 * The ids of the best set of names in danger under a budget, in minor units of one currency: what must be kept first, then what
 * brings most over its cost. Names whose cost is not known or in another currency, and those that the owner drops, stay out.
 */
export function bestSet(
  rows: readonly LedgerRow[],
  asOf: Instant,
  odds: SaleOdds,
  budget: { readonly currency: string; readonly minor: number },
): number[] {
  const affordable = rows.flatMap((row) => {
    if (!needsRescue(row, asOf)) return [];
    const { verdict, cost, expected, always } = judge(row, odds);
    const isDropped = verdict === 'drop' && row.name.rescue === 'drop';
    if (cost === null || cost.currency !== budget.currency || isDropped) return [];
    const worth = (expected?.currency === budget.currency ? expected.minor : 0) - cost.minor;
    return [{ id: row.name.id, choice: { cost: cost.minor, worth, always } }];
  });
  const taken = bestUnderBudget(
    affordable.map(({ choice }) => choice),
    budget.minor,
  );
  return taken.flatMap((place) => affordable[place]?.id ?? []);
}
