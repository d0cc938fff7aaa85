import { type LedgerRow, rowsNear, worthIn } from '@/core/ledger';
import type { Phase } from '@/core/lifecycle';
import type { Valuing } from '@/core/prospects';
import { namesInDanger, RESCUE_DAYS } from '@/core/rescue';
import type { RescueView, RowView } from './views';

/** What is past its term, or going there because nothing keeps it, with a verdict; and what is past help, refundable, or let go. */
export function rescueView(valuing: Valuing, view: (row: LedgerRow) => RowView): RescueView {
  const { today } = valuing;
  const { asOf, index } = today.projection;
  const judged = namesInDanger(rowsNear(today, RESCUE_DAYS), asOf, valuing, worthIn(index.rules, asOf));
  const { names } = today.projection;
  const those = (wanted: (place: number, phase: Phase | null) => boolean) =>
    today.rowsWhere((place) => wanted(place, today.phaseAt(place))).map(view);
  return {
    rows: judged.map(({ row, judgement }) => ({ row: view(row), judgement })),
    pendingDelete: those((_, phase) => phase === 'pending delete'),
    refundable: those(
      (place, phase) => phase === 'refundable' && index.accounts.get(names.accountId(place))?.refunds === true,
    ),
    dropping: those(
      (place, phase) => names.flag(place, 'purpose') === 'drop' && phase !== 'pending delete' && phase !== 'available',
    ),
  };
}
