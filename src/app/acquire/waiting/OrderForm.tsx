'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Disclosure } from '@/ui/controls/Disclosure';
import { Choice, Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields } from '@/ui/text/Sheet';
import { yearsWords } from '@/ui/text/words';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { orderAtReleaseAction } from '../actions';

const YEARS = Array.from({ length: 10 }, (_, i) => ({ value: String(i + 1), text: yearsWords(i + 1) }));

/** Orders a name for its release: at which accounts, in which order, for how much at most, until when. */
export function OrderForm({ name }: { name: string }) {
  const { homeCurrency, meta } = useLedger();
  const { save, refused, isBusy } = useSave();
  const router = useRouter();
  const [made, setMade] = useState(0);
  const [years, setYears] = useState('1');
  const [accountIds, setAccountIds] = useState<readonly number[]>([]);
  const linked = (meta?.rules.accounts ?? []).filter((account) => account.linked);
  const labels = new Map(linked.map(({ id, label }) => [id, label]));
  return (
    <Disclosure summary="Order a name at its release" isOpenAtFirst={name !== ''}>
      <Form
        key={made}
        refused={refused}
        aria-label="Order a name at its release"
        onSubmit={async (form) => {
          const ordered = orderAtReleaseAction({
            name: String(form.get('name') ?? ''),
            accountIds,
            years: Number(years),
            mostFirstMinor: minorIn(form, 'mostFirstMinor'),
            mostRenewalMinor: minorIn(form, 'mostRenewalMinor'),
            until: dayIn(form, 'until'),
            note: String(form.get('note') ?? ''),
          });
          if ((await save(ordered, 'It is ordered for its release.')) === null) return;
          setMade(made + 1);
          router.replace('/acquire/waiting');
        }}
      >
        <Fields>
          <Field name="name" label="Name to be released" defaultValue={name} mono />
          <Choice label="Registered for" value={years} onChange={setYears} options={YEARS} />
          <AmountField
            name="mostFirstMinor"
            label={`At most for the first term, ${homeCurrency}`}
            currency={homeCurrency}
            amount={null}
          />
          <AmountField
            name="mostRenewalMinor"
            label={`At most for each renewal, ${homeCurrency}`}
            currency={homeCurrency}
            amount={null}
          />
          <DayField name="until" label="Tried until, that day included" />
          <Field name="note" label="Why" />
        </Fields>
        <Actions role="group" aria-label="At these accounts, in the order you choose them">
          <span className="soft">
            At, in this order:{' '}
            {accountIds.length === 0 ? 'choose them' : accountIds.map((id) => labels.get(id)).join(', ')}
          </span>
          {linked.map(({ id, label }) => (
            <Check
              key={id}
              isSelected={accountIds.includes(id)}
              onChange={(isOn) => setAccountIds(isOn ? [...accountIds, id] : accountIds.filter((one) => one !== id))}
            >
              {label}
            </Check>
          ))}
        </Actions>
        <p className="soft">
          From the earliest moment on it is tried at most once a minute at each. Others may be faster: then nothing is
          paid.
        </p>
        <Actions>
          <Button type="submit" isDisabled={isBusy}>
            Order it
          </Button>
        </Actions>
      </Form>
    </Disclosure>
  );
}
