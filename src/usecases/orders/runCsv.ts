import { formatDecimal } from '@/core/money';
import { type Refusal, refuse } from '@/core/refusal';
import { dayOf } from '@/core/time';
import { type RenewalItemRow, selectRenewal } from '@/database/renewals';
import { writeTable } from '@/formats/csv/writeTable';
import type { Deps } from '../deps';

/** A run as CSV: one line for each name, whatever became of it. */
export async function runCsv(deps: Deps, renewalId: string): Promise<string | Refusal> {
  const run = await selectRenewal(deps.database, renewalId);
  if (!run) return refuse('renewal-unknown', 'This renewal is no longer there. Choose the names again.');
  const money = (minor: number | null, currency: string | null) =>
    minor === null || currency === null ? '' : formatDecimal({ minor, currency });
  return writeTable(
    [
      'name',
      'unicode',
      'state',
      'years',
      'old end',
      'new end',
      'quoted',
      'charged',
      'tax within',
      'currency',
      'charged on',
      'paid by',
      'receipt',
    ],
    run.items.map((item) => [
      item.ascii,
      item.unicode,
      item.done ? 'renewed' : item.state === 'planned' ? 'not renewed' : item.state,
      String(item.years),
      dayOf(item.oldEnd),
      item.done && item.newEnd !== null ? dayOf(item.newEnd) : '',
      money(item.quotedMinor, item.currency),
      money(item.chargedMinor, item.currency),
      money(taxWithin(item), item.currency),
      item.currency ?? '',
      item.chargedOn ?? '',
      item.paymentMethod ?? '',
      item.reference ?? '',
    ]),
  );
}

/** The tax within what was charged, known where the charge is the quote. */
function taxWithin({ chargedMinor, quotedMinor, quotedTaxMinor }: RenewalItemRow): number | null {
  return chargedMinor !== null && chargedMinor === quotedMinor ? quotedTaxMinor : null;
}
