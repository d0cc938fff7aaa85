'use client';
import { useState } from 'react';
import { isRefusal } from '@/core/refusal';
import { counterLapses } from '@/core/selling';
import { dayOf } from '@/core/time';
import { AmountField, decimalIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { readTyped, typedAmount } from '@/ui/text/figures';
import { Fields, Section } from '@/ui/text/Sheet';
import { untilWords } from '@/ui/text/words';
import type { Negotiation } from '@/usecases/selling/offers';
import { useLedger } from '../../../frame/LedgerProvider';
import { buyerAnswersAction } from '../../actions';
import type { NegotiationState } from './useNegotiation';

interface AnswerPartProps {
  readonly about: Negotiation;
  readonly state: NegotiationState;
  readonly onAccept: () => void;
  readonly onDecline: () => void;
}

/** The owner's answer: accept, decline, or another figure with its last day. */
export function AnswerPart({ about: { thread, now }, state, onAccept, onDecline }: AnswerPartProps) {
  const { style } = useLedger();
  const { currency } = thread;
  const { live, isMine, isTheirs, middle, floor, money } = state;
  const [amount, setAmount] = useState('');
  const read = amount.trim() === '' ? null : readTyped(amount, currency);
  const typed = read === null || isRefusal(read) ? null : read.minor;
  const buyerAnswers = async (answer: 'accept' | 'decline', words: string) =>
    state.save(buyerAnswersAction(thread.id, answer), words);
  return (
    <Section aria-label={isMine ? 'Your answer' : 'The buyer’s answer'}>
      <h2>{isMine ? 'Your answer' : 'The buyer has your figure'}</h2>
      {isMine && live && (
        <Actions>
          <Button data-kind="primary" onPress={onAccept}>
            Accept {money(live.minor)}…
          </Button>
          <Button onPress={onDecline}>Decline…</Button>
          <span className="soft">
            {live.lapsesAt ? `It stands until ${untilWords(live.lapsesAt, style)}.` : 'It has no date.'}
          </span>
        </Actions>
      )}
      <Form
        aria-label="Counter"
        refused={state.refused}
        onSubmit={async (form) => {
          const countered = await state.counter(decimalIn(form, 'amount', currency), dayIn(form, 'until'));
          if (countered !== null) setAmount('');
        }}
      >
        <Fields>
          <AmountField
            name="amount"
            label={`Counter with, in ${currency}`}
            currency={currency}
            value={amount}
            onChange={setAmount}
            hint={typed === null ? 'like 1200' : state.proceedsWords(typed)}
          />
          <DayField name="until" label="Stands until" defaultValue={dayOf(counterLapses(now))} />
          <AmountField
            label="Profit wanted at least"
            currency={currency}
            onChange={(text, wished) => state.setMargin(text.trim() === '' ? 0 : (wished?.minor ?? null))}
            hint="moves your floor"
          />
        </Fields>
        {typed !== null && floor !== null && typed < floor && (
          <p className="caution">That is below your floor of {money(floor)}.</p>
        )}
        <Actions>
          <Button type="submit">Counter</Button>
          {middle !== null && isMine && (
            <Button onPress={() => setAmount(typedAmount({ minor: middle, currency }))}>
              Take the middle, {money(middle)}
            </Button>
          )}
          {thread.ref === null && isTheirs && (
            <>
              <Button onPress={() => void buyerAnswers('accept', 'Accepted: it is a sale.')}>The buyer accepts</Button>
              <Button onPress={() => void buyerAnswers('decline', 'The thread is closed.')}>The buyer gives up</Button>
            </>
          )}
        </Actions>
      </Form>
    </Section>
  );
}
