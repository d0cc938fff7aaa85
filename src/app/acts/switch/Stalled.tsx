'use client';
import { mendingOf } from '@/core/ledger';
import { Link } from '@/ui/controls/Link';
import { causeWords, dayWords } from '@/ui/text/words';
import { useLedger } from '../../frame/LedgerProvider';
import type { RowView } from '../../frame/views';

/** Why a name is stalled, and what mends it. Renewing and restoring are offered by the buttons beside it. */
export function Stalled({ row }: { row: RowView }) {
  const { style } = useLedger();
  const mending = mendingOf(row);
  if (mending === null) return null;
  const why = row.failed?.cause ? causeWords(row.failed.cause) : null;
  const evidence = why === null ? row.name.stalledBy : null;
  return (
    <p>
      <span className="caution">Stalled: the last charge failed{why ? ` (${why})` : ''}.</span>{' '}
      {evidence && <span className="soft">Evidence: {evidence.replace(/[.]$/, '')}. </span>}
      {mending.kind === 'wait' && `It is tried again on ${dayWords(mending.charge.at, style)} and will pass.`}
      {mending.kind === 'fund' && (
        <>
          The next try, on {dayWords(mending.charge.at, style)}, fails too ({causeWords(mending.cause)}):{' '}
          <Link href={`/renewals?account=${row.name.accountId}`}>
            {mending.cause.kind === 'balance short' ? 'top up' : 'put in a card'}
          </Link>{' '}
          before it, or renew it yourself.
        </>
      )}
      {mending.kind === 'renew' && 'The registrar does not try again: renew it yourself.'}
      {mending.kind === 'restore' && 'Only a restore helps now.'}
    </p>
  );
}
