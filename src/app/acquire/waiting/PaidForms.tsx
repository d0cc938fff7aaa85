'use client';
import { Button } from '@/ui/controls/Button';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Fields } from '@/ui/text/Sheet';
import type { ApproachRow } from '@/usecases/acquiring/approaches';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { moveApproachAction } from '../actions';

/** The money has gone out: when, and under which reference. */
export function PaidForm({ thread }: { thread: ApproachRow }) {
  const { style } = useLedger();
  const { save, refused, isBusy } = useSave();
  const { id, unicode, agreedMinor, feesMinor, currency, moneyWith } = thread;
  return (
    <Form
      refused={refused}
      aria-label={`Payment for ${unicode}`}
      onSubmit={async (form) => {
        const paid = { id, to: 'paid', paidOn: dayIn(form, 'paidOn'), reference: String(form.get('reference') ?? '') };
        await save(moveApproachAction(paid), `Paid: ${unicode}.`);
      }}
    >
      <p>
        Pay {formatAmount({ minor: (agreedMinor ?? 0) + feesMinor, currency })} to{' '}
        {moneyWith === '' ? 'the holder: nobody holds the money for you' : moneyWith}.
      </p>
      <Fields>
        <DayField name="paidOn" label="Paid on" defaultValue={style.today} />
        <Field name="reference" label="Reference" />
      </Fields>
      <Actions>
        <Button type="submit" data-kind="primary" isDisabled={isBusy}>
          It is paid
        </Button>
      </Actions>
    </Form>
  );
}

/** The name has come: it is looked for at its account, and its cost is booked from the day it was paid. */
export function ArriveForm({ thread }: { thread: ApproachRow }) {
  const { meta } = useLedger();
  const { save, refused, isBusy } = useSave({ ledger: true });
  const { id, unicode, ascii, accountId, arrivesBy } = thread;
  const account = meta?.rules.accounts.find((one) => one.id === accountId);
  return (
    <Form
      refused={refused}
      aria-label={`Arrival of ${unicode}`}
      onSubmit={async (form) => {
        const end = dayIn(form, 'end');
        const arrived = moveApproachAction({ id, to: 'arrived', ...(end ? { end } : {}) });
        await save(arrived, `${unicode} is in the ledger, its cost is booked.`);
      }}
    >
      <p>
        {arrivesBy === 'push'
          ? `The holder pushes ${ascii} to your account at ${account?.registrar}.`
          : `Have the code sent, and request the transfer of ${ascii} at ${account?.registrar} with it.`}
      </p>
      {account?.linked !== true && (
        <Fields>
          <DayField name="end" label="End of its term, as the account shows it" />
        </Fields>
      )}
      <Actions>
        <Button type="submit" data-kind="primary" isDisabled={isBusy}>
          {account?.linked ? 'Look whether it has arrived' : 'It has arrived'}
        </Button>
      </Actions>
    </Form>
  );
}
