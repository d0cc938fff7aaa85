import { type LedgerRow, type Projection, worthIn } from '@/core/ledger';
import { intoBy, namesInDanger } from '@/core/rescue';
import type { RescueView, RowView } from './views';

/** What is past its term, or going there because nothing keeps it, with a verdict; and what is past help, refundable, or let go. */
export function rescueView(
  { asOf, index }: Projection,
  rows: readonly LedgerRow[],
  view: (row: LedgerRow) => RowView,
): RescueView {
  const judged = namesInDanger(
    rows,
    asOf,
    index.rules.odds,
    worthIn(index.rules, asOf),
    intoBy(index.rules.rates, asOf),
  );
  const those = (wanted: (row: LedgerRow) => boolean) => rows.filter(wanted).map(view);
  return {
    rows: judged.map(({ row, judgement }) => ({ row: view(row), judgement })),
    pendingDelete: those((row) => row.phase === 'pending delete'),
    refundable: those((row) => row.phase === 'refundable' && index.accounts.get(row.name.accountId)?.refunds === true),
    dropping: those(
      (row) => row.name.purpose === 'drop' && row.phase !== 'pending delete' && row.phase !== 'available',
    ),
  };
}
