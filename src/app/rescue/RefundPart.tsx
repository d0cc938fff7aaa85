'use client';
import { useState } from 'react';
import { Button } from '@/ui/controls/Button';
import { Ruled, Section } from '@/ui/text/Sheet';
import { amountsWords, hourWords, namesWords } from '@/ui/text/words';
import { RefundDialog } from '../acts/refund/RefundDialog';
import { useLedger } from '../frame/LedgerProvider';
import type { RowView } from '../frame/views';

/** Fresh registrations that can be deleted for a refund, to the hour. */
export function RefundPart({ rows }: { rows: readonly RowView[] }) {
  const { style } = useLedger();
  const [asking, setAsking] = useState<RowView | null>(null);
  if (rows.length === 0) return null;
  return (
    <Section aria-label="Can be refunded">
      <h2>Can be refunded: {namesWords(rows.length)}</h2>
      <Ruled aria-label="Can be refunded">
        <tbody>
          {rows.map((row) => (
            <tr key={row.name.id}>
              <td className="name">{row.name.unicode}</td>
              <td>until {row.marks?.refundableUntil ? hourWords(row.marks.refundableUntil, style) : ''}</td>
              <td className="figure">{row.name.spent.length > 0 ? amountsWords(row.name.spent) : ''}</td>
              <td className="figure">
                <Button data-kind="plain" onPress={() => setAsking(row)} aria-label={`Refund ${row.name.unicode}`}>
                  Refund…
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </Ruled>
      <RefundDialog row={asking} onClose={() => setAsking(null)} />
    </Section>
  );
}
