import { formatDay } from '@/core/time';
import { Link } from '@/ui/controls/Link';
import { formatAmount } from '@/ui/text/figures';
import { Ruled } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import type { ReviewedEntry } from '@/usecases/prospects/review';
import { namePage } from '../../../frame/pages';

/** Entries as they were booked, with each amount in the home currency where it was another. */
export function EntriesTable({
  entries,
  homeCurrency,
  label,
}: {
  entries: readonly ReviewedEntry[];
  homeCurrency: string;
  label: string;
}) {
  return (
    <Wide least={760}>
      <Ruled aria-label={label}>
        <thead>
          <tr>
            <th>Day</th>
            <th>Name</th>
            <th>Account</th>
            <th>For</th>
            <th className="figure">Amount</th>
            <th className="figure">In {homeCurrency}</th>
            <th>Receipt</th>
            <th>Note</th>
          </tr>
        </thead>
        <tbody>
          {entries.map((entry) => (
            <tr key={entry.id} data-off={entry.isCounter}>
              <td className="whole">{formatDay(entry.day)}</td>
              <td>
                <Link href={namePage(entry.ascii)} className="name">
                  {entry.unicode}
                </Link>
              </td>
              <td>{entry.account}</td>
              <td>{entry.isCounter ? `${entry.kind}, taken back` : entry.kind}</td>
              <td className="figure">{formatAmount({ minor: entry.minor, currency: entry.currency })}</td>
              <td className="figure">{entry.inHome ? formatAmount(entry.inHome) : 'no rate'}</td>
              <td>{entry.reference}</td>
              <td className="soft">{entry.note}</td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Wide>
  );
}
