import type { LedgerDay, LedgerRow } from '@/core/ledger';
import { type LeftReason, type MovePlan, type PlanAsked, planMoves } from '@/core/moving';
import type { NamedName, PlannedNames, PlanView } from './views';

/** As many names as are named of those that a plan leaves where they are, for each reason. */
const MOST_LEFT = 100;

/** Which of some names to move where and when. */
export function planView(today: LedgerDay, which: PlannedNames, asked: PlanAsked): PlanView {
  const { projection } = today;
  const { id, accountId } = projection.names.columns;
  const wanted = which.kind === 'chosen' ? new Set(which.nameIds) : null;
  const among = today.rowsWhere((place) =>
    which.kind === 'account' ? accountId[place] === which.accountId : (wanted?.has(id[place] as number) ?? true),
  );
  const plan = planMoves(projection, among, asked);
  return {
    ...plan,
    waves: plan.waves.map((wave) => ({
      ...wave,
      moves: wave.moves.map(({ row, ...move }) => ({ ...move, ...named(row), fromId: row.name.accountId })),
    })),
    left: leftByReason(plan.left),
  };
}

function leftByReason(left: MovePlan['left']): PlanView['left'] {
  const byReason = new Map<LeftReason, LedgerRow[]>();
  for (const { why, row } of left) {
    const rows = byReason.get(why);
    if (rows) rows.push(row);
    else byReason.set(why, [row]);
  }
  return [...byReason]
    .map(([why, rows]) => ({ why, count: rows.length, names: rows.slice(0, MOST_LEFT).map(named) }))
    .sort((a, b) => b.count - a.count);
}

function named({ name }: LedgerRow): NamedName {
  return { nameId: name.id, ascii: name.ascii, unicode: name.unicode };
}
