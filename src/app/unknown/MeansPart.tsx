'use client';
import { useState } from 'react';
import { PAYMENT_METHOD_KINDS, type PaymentMethodKind } from '@/core/funding';
import type { LedgerAccount, Unknowns } from '@/core/ledger';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { MonthField } from '@/ui/controls/MonthField';
import { Actions } from '@/ui/overlay/Dialog';
import { Sentence } from '@/ui/text/Sentence';
import { Section } from '@/ui/text/Sheet';
import { countOf } from '@/ui/text/todayWords';
import { namesWords } from '@/ui/text/words';
import { useSave } from '../acts/useSave';
import { useLedger } from '../frame/LedgerProvider';
import { sayMeansAction } from './actions';

interface Means {
  readonly kind: PaymentMethodKind;
  readonly ends: string;
  readonly month: string;
}

/** Accounts that charge, of which nobody has said from what: a sentence for each, written all at once. */
export function MeansPart({ accounts }: { accounts: Unknowns['accounts'] }) {
  const { meta } = useLedger();
  const { save, refused, isBusy } = useSave({ ledger: true });
  const [means, setMeans] = useState<ReadonlyMap<number, Means>>(new Map());
  const of = (id: number): Means => means.get(id) ?? { kind: 'balance', ends: '', month: '' };
  const set = (id: number, part: Partial<Means>) => setMeans(new Map(means).set(id, { ...of(id), ...part }));
  const known = accounts.flatMap(({ accountId, names }) => {
    const account = meta?.rules.accounts.find(({ id }) => id === accountId);
    return account ? [{ account, names }] : [];
  });
  const send = (form: FormData) => {
    const said = known.map(({ account: { id } }) => ({
      accountId: id,
      paymentMethods: [
        { kind: of(id).kind, label: textOf(form, `label.${id}`) || of(id).kind, endsMonth: of(id).month },
      ],
      balanceMinor: minorIn(form, `balance.${id}`),
    }));
    // A balance that is not said would leave the account where it was.
    const whole = said.filter(
      ({ paymentMethods: [method], balanceMinor }) => method?.kind !== 'balance' || balanceMinor !== undefined,
    );
    void save(
      sayMeansAction({ means: whole }),
      (written) => `Kept for ${written === 1 ? 'one account' : `${written} accounts`}.`,
    );
  };
  return (
    <Section id="means" aria-label="What accounts pay from">
      <h2>{countOf(accounts.length, 'account charges', 'accounts charge')} from nobody knows what</h2>
      <p className="soft">Whether a charge passes depends on it.</p>
      <Form aria-label="What accounts pay from" refused={refused} onSubmit={send}>
        {known.map(({ account, names }) => (
          <MeansOf
            key={account.id}
            account={account}
            names={names}
            means={of(account.id)}
            onMeans={(part) => set(account.id, part)}
          />
        ))}
        <Actions>
          <Button type="submit" data-kind="primary" isDisabled={isBusy}>
            Save what they pay from
          </Button>
        </Actions>
      </Form>
    </Section>
  );
}

function MeansOf({
  account: { id, label, currency },
  names,
  means: { kind, ends },
  onMeans,
}: {
  account: LedgerAccount;
  names: number;
  means: Means;
  onMeans: (part: Partial<Means>) => void;
}) {
  return (
    <Sentence>
      <strong>{label}</strong> charges {namesWords(names)} and pays from
      <Choice
        label={`${label} pays from`}
        hideLabel
        value={kind}
        onChange={(chosen) => onMeans({ kind: chosen })}
        options={PAYMENT_METHOD_KINDS.map((one) => ({
          value: one,
          text: one === 'balance' ? 'the balance there' : `a ${one}`,
        }))}
      />
      {kind === 'balance' ? (
        <>
          of
          <AmountField
            name={`balance.${id}`}
            label={`Balance at ${label}`}
            hideLabel
            currency={currency}
            placeholder={currency}
            negative
          />
        </>
      ) : (
        <>
          called
          <Field name={`label.${id}`} label={`What ${label} pays from is called`} hideLabel placeholder={kind} />
          {kind === 'card' && (
            <>
              good through
              <MonthField
                label={`Card at ${label} is good through`}
                hideLabel
                value={ends}
                onChange={(text, month) => onMeans({ ends: text, month })}
              />
            </>
          )}
        </>
      )}
    </Sentence>
  );
}
