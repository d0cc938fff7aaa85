'use client';
import { useState } from 'react';
import type { Rate } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import { formatDay } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { numberText, typedNumber } from '@/ui/text/figures';
import { Fields, Ruled } from '@/ui/text/Sheet';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { saveRateAction } from '../actions';

/** What one currency is worth in another, from a day on. */
export function RatesPart({ rates }: { rates: readonly Rate[] }) {
  const { homeCurrency, style } = useLedger();
  const { save, refused, setRefused, isBusy } = useSave({ ledger: true });
  // A form whose rate was saved begins anew.
  const [round, setRound] = useState(0);
  const saveRate = async (form: FormData) => {
    const factor = typedNumber(textOf(form, 'factor'));
    if (isRefusal(factor)) return setRefused({ ...factor, field: 'factor' });
    const asked = saveRateAction({
      from: dayIn(form, 'from'),
      currency: textOf(form, 'currency').toUpperCase(),
      into: textOf(form, 'into').toUpperCase(),
      factor,
    });
    if ((await save(asked, 'The rate is saved.')) !== null) setRound(round + 1);
  };
  return (
    <Form key={round} aria-label="Rates between currencies" refused={refused} onSubmit={saveRate}>
      <h2>Rates between currencies</h2>
      <p className="soft">
        Costs and sales of different currencies are set against each other at the rate of their day.
      </p>
      {rates.length > 0 && (
        <Ruled aria-label="Rates">
          <tbody>
            {newestOf(rates).map((rate) => (
              <tr key={`${rate.from} ${rate.currency} ${rate.into}`}>
                <td>from {formatDay(rate.from)}</td>
                <td className="figure">
                  1 {rate.currency} = {numberText(rate.factor)} {rate.into}
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      )}
      <Fields>
        <DayField name="from" label="From day" defaultValue={style.today} />
        <Field name="currency" label="One unit of" />
        <Field name="into" label="in" defaultValue={homeCurrency} />
        <Field name="factor" label="is so many" inputMode="decimal" />
      </Fields>
      <Actions>
        <Button type="submit" isDisabled={isBusy}>
          Save the rate
        </Button>
      </Actions>
    </Form>
  );
}

/** The latest of each pair; they come with the latest first. */
function newestOf(rates: readonly Rate[]): Rate[] {
  const pairs = new Map<string, Rate>();
  for (const rate of rates) {
    const pair = `${rate.currency} ${rate.into}`;
    if (!pairs.has(pair)) pairs.set(pair, rate);
  }
  return [...pairs.values()];
}
