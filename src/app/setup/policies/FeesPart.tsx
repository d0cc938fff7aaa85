'use client';
import type { RegistryFee } from '@/core/lifecycle';
import { formatDay } from '@/core/time';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Fields, Ruled } from '@/ui/text/Sheet';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { saveRegistryFeeAction } from '../actions';

export function Fees({ fees }: { fees: readonly RegistryFee[] }) {
  const { style } = useLedger();
  const { save, refused, isBusy } = useSave({ ledger: true });
  const saveFee = (form: FormData) =>
    save(
      saveRegistryFeeAction(dayIn(form, 'from'), minorIn(form, 'minor') ?? Number.NaN, 'USD'),
      'The registry fee is set.',
    );
  return (
    <Form aria-label="Yearly registry fee" refused={refused} onSubmit={async (form) => void (await saveFee(form))}>
      <h2>Yearly registry fee</h2>
      <Ruled>
        <tbody>
          {fees.map((row) => (
            <tr key={`${row.from}${row.currency}`}>
              <td>from {formatDay(row.from)}</td>
              <td className="figure">{formatAmount(row)}</td>
              <td className="soft">{row.source}</td>
            </tr>
          ))}
        </tbody>
      </Ruled>
      <Fields>
        <DayField name="from" label="From" defaultValue={style.today} />
        <AmountField name="minor" label="A year, USD" currency="USD" />
      </Fields>
      <Actions>
        <Button type="submit" isDisabled={isBusy}>
          Set the fee
        </Button>
      </Actions>
    </Form>
  );
}
