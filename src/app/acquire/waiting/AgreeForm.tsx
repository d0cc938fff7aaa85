'use client';
import { useState } from 'react';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Disclosure } from '@/ui/controls/Disclosure';
import { Choice, Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields } from '@/ui/text/Sheet';
import type { ApproachRow } from '@/usecases/acquiring/approaches';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { moveApproachAction } from '../actions';

/** What was agreed: the price, its fees, who holds the money, and how the name comes. */
export function AgreeForm({ thread }: { thread: ApproachRow }) {
  const { meta } = useLedger();
  const { save, refused, isBusy } = useSave();
  const [accountId, setAccountId] = useState<string | null>(null);
  const [arrivesBy, setArrivesBy] = useState<'push' | 'transfer'>('push');
  const [isOverLimit, setOverLimit] = useState(false);
  const { id, unicode, currency, lines } = thread;
  const last = lines.findLast(({ figureMinor }) => figureMinor !== null)?.figureMinor ?? null;
  return (
    <Disclosure summary="It is agreed">
      <Form
        refused={refused}
        aria-label={`What was agreed for ${unicode}`}
        onSubmit={async (form) => {
          const agreed = moveApproachAction({
            id,
            to: 'agreed',
            agreedMinor: minorIn(form, 'agreedMinor'),
            feesMinor: minorIn(form, 'feesMinor'),
            moneyWith: String(form.get('moneyWith') ?? ''),
            arrivesBy,
            accountId: accountId === null ? undefined : Number(accountId),
            isOverLimit,
          });
          await save(agreed, `Agreed: ${unicode}.`);
        }}
      >
        <Fields>
          <AmountField
            name="agreedMinor"
            label={`Price of ${unicode}, ${currency}`}
            currency={currency}
            amount={last === null ? null : { minor: last, currency }}
          />
          <AmountField name="feesMinor" label={`Fees besides, ${currency}`} currency={currency} amount={null} />
          <Field name="moneyWith" label="Who holds the money" hint="until it has arrived" />
          <Choice
            label="It comes into"
            value={accountId}
            onChange={setAccountId}
            placeholder="choose an account"
            options={(meta?.rules.accounts ?? []).map(({ id: one, label }) => ({ value: String(one), text: label }))}
          />
          <Choice
            label="By"
            value={arrivesBy}
            onChange={setArrivesBy}
            options={[
              { value: 'push', text: 'a push inside its registrar' },
              { value: 'transfer', text: 'a transfer' },
            ]}
          />
        </Fields>
        <Check isSelected={isOverLimit} onChange={setOverLimit}>
          More than the limit is meant
        </Check>
        <Actions>
          <Button type="submit" data-kind="primary" isDisabled={isBusy}>
            Write the agreement down
          </Button>
        </Actions>
      </Form>
    </Disclosure>
  );
}
