'use client';
import { useState } from 'react';
import { AmountField, decimalIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields, Ruled, Section } from '@/ui/text/Sheet';
import { hourWords, untilWords } from '@/ui/text/words';
import type { Negotiation } from '@/usecases/selling/offers';
import { useSave } from '../../../acts/useSave';
import { useLedger } from '../../../frame/LedgerProvider';
import { enterOfferAction } from '../../actions';
import type { NegotiationState } from './useNegotiation';

/** Every figure of the thread, the newest first, and the buyer's next one where it comes by mail or telephone. */
export function FiguresPart({ about: { thread }, state }: { about: Negotiation; state: NegotiationState }) {
  const { style } = useLedger();
  return (
    <>
      {thread.ref === null && ['open', 'lapsed', 'declined'].includes(thread.state) && <NextFigure thread={thread} />}
      <Section aria-label="Every figure">
        <h2>Every figure</h2>
        <Ruled aria-label="Every figure">
          <thead>
            <tr>
              <th>When</th>
              <th>Who</th>
              <th className="figure">Figure</th>
              <th>Status</th>
            </tr>
          </thead>
          <tbody>
            {[...thread.figures].reverse().map((figure) => (
              <tr key={figure.id} data-off={figure.state !== 'live' && figure.state !== 'accepted'}>
                <td>{hourWords(figure.at, style)}</td>
                <td>
                  {figure.by === 'buyer' ? thread.buyer : (figure.person ?? 'you')}
                  {figure.byRule && ', by your rule'}
                </td>
                <td className="figure">{state.money(figure.minor)}</td>
                <td>
                  {figure.state === 'voided' ? 'answered with another figure' : figure.state}
                  {figure.state === 'live' && figure.lapsesAt && `, until ${untilWords(figure.lapsesAt, style)}`}
                  {figure.by === 'buyer' && figure.person !== null && `, by ${figure.person}`}
                  {figure.note && `, ${figure.note}`}
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      </Section>
    </>
  );
}

/** What a buyer by mail or telephone says next. */
function NextFigure({ thread }: { thread: Negotiation['thread'] }) {
  const { currency } = thread;
  const { save, refused, isBusy } = useSave();
  // A form whose figure was entered begins anew.
  const [round, setRound] = useState(0);
  const enter = async (form: FormData) => {
    const asked = enterOfferAction({
      nameId: thread.nameId,
      threadId: thread.id,
      buyer: thread.buyer,
      amount: decimalIn(form, 'amount', currency),
      currency,
      until: dayIn(form, 'until'),
    });
    if ((await save(asked, 'The figure is entered.')) !== null) setRound(round + 1);
  };
  return (
    <details>
      <summary>Enter the buyer’s next figure</summary>
      <Form key={round} aria-label="The buyer’s next figure" refused={refused} onSubmit={enter}>
        <Fields>
          <AmountField name="amount" label={`Figure in ${currency}`} currency={currency} />
          <DayField name="until" label="Stands until" hint="empty for no date" />
        </Fields>
        <Actions>
          <Button type="submit" isDisabled={isBusy}>
            Enter it
          </Button>
        </Actions>
      </Form>
    </details>
  );
}
