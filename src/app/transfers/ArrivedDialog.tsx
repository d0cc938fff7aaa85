'use client';
import { useState } from 'react';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Choice, Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { useSave } from '../acts/useSave';
import { useLedger } from '../frame/LedgerProvider';
import { takeArrivalAction } from './actions';

/** A name has come into an account by push: it is taken into the ledger, and looked after like every name that arrives. */
export function ArrivedButton() {
  const { meta } = useLedger();
  const [isOpen, setOpen] = useState(false);
  // Before the ledger is there it has no account to choose.
  if (meta === null) return null;
  return (
    <>
      <Button onPress={() => setOpen(true)}>A name came by push…</Button>
      <Dialog title="A name came by push" isOpen={isOpen} onClose={() => setOpen(false)}>
        <ArrivedForm onClose={() => setOpen(false)} />
      </Dialog>
    </>
  );
}

function ArrivedForm({ onClose }: { onClose: () => void }) {
  const { meta } = useLedger();
  const accounts = meta?.rules.accounts ?? [];
  const { save, refused, isBusy } = useSave({ ledger: true });
  const [accountId, setAccountId] = useState(String(accounts[0]?.id ?? ''));
  const account = accounts.find(({ id }) => String(id) === accountId);
  const take = async (form: FormData) => {
    const asked = takeArrivalAction({
      name: textOf(form, 'name'),
      accountId,
      from: textOf(form, 'from'),
      minor: minorIn(form, 'minor'),
      end: dayIn(form, 'end') || undefined,
    });
    if ((await save(asked, (name) => `${name} is in the ledger.`)) !== null) onClose();
  };
  return (
    <Form aria-label="A name that came by push" refused={refused} onSubmit={take}>
      <Field name="name" label="Name" />
      <Choice
        label="Into the account"
        value={accountId}
        onChange={setAccountId}
        options={accounts.map(({ id, label }) => ({ value: String(id), text: label }))}
      />
      <Field name="from" label="From" hint="its holder, or the marketplace" />
      <AmountField
        key={account?.currency}
        name="minor"
        label={`Paid for it, ${account?.currency ?? ''}`}
        currency={account?.currency ?? 'USD'}
        hint="empty where that is booked elsewhere"
      />
      {account && !account.linked && <DayField name="end" label={`Its term ends, as ${account.label} shows it`} />}
      <Actions>
        <Button type="submit" data-kind="primary" isDisabled={isBusy}>
          Take it into the ledger
        </Button>
        <Button onPress={onClose}>Cancel</Button>
      </Actions>
    </Form>
  );
}
