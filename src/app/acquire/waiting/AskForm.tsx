'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Disclosure } from '@/ui/controls/Disclosure';
import { Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields } from '@/ui/text/Sheet';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { beginApproachAction } from '../actions';

/** Begins to ask a holder: whom, how far one would go. */
export function AskForm({ name }: { name: string }) {
  const { homeCurrency } = useLedger();
  const { save, refused, isBusy } = useSave();
  const router = useRouter();
  const [made, setMade] = useState(0);
  return (
    <Disclosure summary="Ask the holder of a name" isOpenAtFirst={name !== ''}>
      <Form
        key={made}
        refused={refused}
        aria-label="Ask the holder of a name"
        onSubmit={async (form) => {
          const text = (key: string) => String(form.get(key) ?? '');
          const asked = beginApproachAction({
            name: text('name'),
            holder: text('holder'),
            contact: text('contact'),
            note: text('note'),
            limitMinor: minorIn(form, 'limitMinor'),
            currency: homeCurrency,
          });
          if ((await save(asked, 'The thread is begun.')) === null) return;
          setMade(made + 1);
          router.replace('/acquire/waiting');
        }}
      >
        <Fields>
          <Field name="name" label="Name of somebody else" defaultValue={name} mono />
          <Field name="holder" label="Holder" hint="empty: as the record shows it" />
          <Field name="contact" label="Mail address" hint="empty: that of the record" />
          <AmountField
            name="limitMinor"
            label={`The most you would pay, fees included, ${homeCurrency}`}
            currency={homeCurrency}
            amount={null}
          />
          <Field name="note" label="Why" />
        </Fields>
        <Actions>
          <Button type="submit" isDisabled={isBusy}>
            Begin a thread
          </Button>
        </Actions>
      </Form>
    </Disclosure>
  );
}
