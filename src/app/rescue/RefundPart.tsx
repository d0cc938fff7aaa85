'use client';
import { useState } from 'react';
import { Button } from '@/ui/controls/Button';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { Ruled, Section } from '@/ui/text/Sheet';
import { amountsWords, hourWords, namesWords } from '@/ui/text/words';
import { reportDone } from '../answers';
import { useLedger } from '../frame/LedgerProvider';
import type { RowView } from '../frame/views';
import { giveBackAction } from './actions';

/** Fresh registrations that can be given back, to the hour. */
export function RefundPart({ rows }: { rows: readonly RowView[] }) {
  const { meta, style, reload } = useLedger();
  const [asking, setAsking] = useState<RowView | null>(null);
  if (rows.length === 0) return null;
  const isLinked = (row: RowView) => meta?.rules.accounts.find((one) => one.id === row.name.accountId)?.linked === true;

  const giveBack = async (row: RowView) => {
    setAsking(null);
    const answer = await giveBackAction({ nameId: row.name.id, doneByHand: !isLinked(row) });
    if (reportDone(answer, null)) await reload();
  };

  return (
    <Section aria-label="Can be given back">
      <h2>Can be given back: {namesWords(rows.length)}</h2>
      <Ruled aria-label="Can be given back">
        <tbody>
          {rows.map((row) => (
            <tr key={row.name.id}>
              <td className="name">{row.name.unicode}</td>
              <td>until {row.marks?.refundableUntil ? hourWords(row.marks.refundableUntil, style) : ''}</td>
              <td className="figure">{row.name.spent.length > 0 ? amountsWords(row.name.spent) : ''}</td>
              <td className="figure">
                <Button data-kind="plain" onPress={() => setAsking(row)} aria-label={`Give ${row.name.unicode} back`}>
                  Give it back…
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </Ruled>
      <Dialog
        title={`Give ${asking?.name.unicode ?? ''} back`}
        isOpen={asking !== null}
        onClose={() => setAsking(null)}
      >
        {asking && (
          <>
            <p>
              {isLinked(asking)
                ? 'It is deleted at the registrar at once, free for anyone, and what it cost is credited. Nobody can undo that.'
                : 'Delete it at the registrar first: it is free for anyone then. Confirm here when that is done.'}
            </p>
            <Actions>
              <Button data-kind="primary" onPress={() => void giveBack(asking)}>
                {isLinked(asking) ? 'Delete it and take the money back' : 'It is given back'}
              </Button>
              <Button onPress={() => setAsking(null)}>Keep it</Button>
            </Actions>
          </>
        )}
      </Dialog>
    </Section>
  );
}
