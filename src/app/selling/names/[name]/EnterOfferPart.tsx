'use client';
import { useState } from 'react';
import { AmountField, decimalIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields } from '@/ui/text/Sheet';
import { useSave } from '../../../acts/useSave';
import { enterOfferAction } from '../../actions';

/** An offer that came by mail or telephone. */
export function EnterOfferPart({ nameId, currency }: { nameId: number; currency: string }) {
  const { save, refused, isBusy } = useSave();
  // A form whose offer was entered begins anew.
  const [round, setRound] = useState(0);
  const enter = async (form: FormData) => {
    const asked = enterOfferAction({
      nameId,
      currency,
      buyer: textOf(form, 'buyer'),
      contact: textOf(form, 'contact'),
      amount: decimalIn(form, 'amount', currency),
      until: dayIn(form, 'until'),
    });
    if ((await save(asked, 'The offer is entered.')) !== null) setRound(round + 1);
  };
  return (
    <details>
      <summary>Enter an offer that came by mail or telephone</summary>
      <Form key={round} aria-label="Enter an offer" refused={refused} onSubmit={enter}>
        <Fields>
          <Field name="buyer" label="Who offers it" />
          <AmountField name="amount" label={`Offer in ${currency}`} currency={currency} />
          <DayField name="until" label="Stands until" hint="empty for no date" />
          <Field name="contact" label="How to reach them" />
        </Fields>
        <Actions>
          <Button type="submit" isDisabled={isBusy}>
            Enter the offer
          </Button>
        </Actions>
      </Form>
    </details>
  );
}
