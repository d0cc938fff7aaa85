'use client';
import { useState } from 'react';
import { type Amount, formatDecimal } from '@/core/money';
import { AmountField } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { Ruled, Section } from '@/ui/text/Sheet';
import { hourWords, untilWords } from '@/ui/text/words';
import type { Negotiation } from '@/usecases/selling/offers';
import { useLedger } from '../../../frame/LedgerProvider';
import { enterOfferAction } from '../../actions';
import type { NegotiationState } from './useNegotiation';

/** Every figure of the thread, the newest first, and the buyer's next one where it comes by mail or telephone. */
export function FiguresPart({ about: { thread }, state }: { about: Negotiation; state: NegotiationState }) {
  const { style } = useLedger();
  return (
    <>
      {thread.ref === null && ['open', 'lapsed', 'declined'].includes(thread.state) && (
        <NextFigure thread={thread} state={state} />
      )}
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
                  {figure.by === 'buyer' ? thread.buyer : 'you'}
                  {figure.byRule && ', by your rule'}
                </td>
                <td className="figure">{state.money(figure.minor)}</td>
                <td>
                  {figure.state === 'voided' ? 'answered with another figure' : figure.state}
                  {figure.state === 'live' && figure.lapsesAt && `, until ${untilWords(figure.lapsesAt, style)}`}
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
function NextFigure({ thread, state }: { thread: Negotiation['thread']; state: NegotiationState }) {
  const { currency } = thread;
  const [text, setText] = useState('');
  const [figure, setFigure] = useState<Amount | null>(null);
  const enter = async (amount: Amount) => {
    const answer = await enterOfferAction({
      nameId: thread.nameId,
      threadId: thread.id,
      buyer: thread.buyer,
      amount: formatDecimal(amount),
      currency,
    });
    if (state.answered(answer, 'The figure is entered.')) setText('');
  };
  return (
    <details>
      <summary>Enter the buyer’s next figure</summary>
      <Actions>
        <AmountField
          label={`Figure in ${currency}`}
          currency={currency}
          value={text}
          onChange={(next, understood) => {
            setText(next);
            setFigure(understood);
          }}
        />
        <Button isDisabled={figure === null} onPress={() => figure && void enter(figure)}>
          Enter it
        </Button>
      </Actions>
    </details>
  );
}
