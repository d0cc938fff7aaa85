'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { readPercent } from '@/core/money';
import { isRefusal, type Refusal } from '@/core/refusal';
import { formatMonth, type Month } from '@/core/time';
import { readWholeNumbers } from '@/formats/lists/readWords';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Sentence } from '@/ui/text/Sentence';
import { Fields } from '@/ui/text/Sheet';
import type { HeldAccount } from '@/usecases/accounts/accounts';
import { useSave } from '../../../acts/useSave';
import { useLedger } from '../../../frame/LedgerProvider';
import { removeAccountAction, saveAccountAction } from '../../actions';
import { type PaymentMethodLine, PaymentMethods } from './PaymentMethods';

/** The rules by which the registrar charges, what it is paid with, and the balance there. */
export function AccountForm({ account }: { account: HeldAccount | null }) {
  const router = useRouter();
  const { homeCurrency } = useLedger();
  const [paymentMethods, setPaymentMethods] = useState(() => linesOf(account));
  const [refunds, setRefunds] = useState(account?.refunds ?? false);
  const [wantsZone, setWantsZone] = useState(account?.wantsZone ?? false);
  const { save, ask, refused, setRefused } = useSave({ ledger: true });
  const [currency, setCurrency] = useState(account?.currency ?? homeCurrency);
  const saveAccount = async (form: FormData) => {
    const rules = rulesIn(form);
    if (isRefusal(rules)) {
      setRefused(rules);
      return;
    }
    const asked = saveAccountAction(account?.id ?? null, {
      ...rules,
      currency,
      refunds,
      wantsZone,
      paymentMethods: paymentMethods.map(({ kind, label, month }) => ({ kind, label, endsMonth: month })),
    });
    const id = await save(asked, 'Account saved.');
    if (!account && id !== null) router.push(`/setup/accounts/${id}`);
  };

  const remove = async () => {
    if (!account) return;
    const removed = await ask(removeAccountAction(account.id), `${account.label} is removed.`);
    if (removed !== null) router.push('/setup/accounts');
  };

  return (
    <Form aria-label="Account" refused={refused} onSubmit={saveAccount}>
      <RuleFields account={account} currency={currency} onCurrency={setCurrency} />
      <Check isSelected={refunds} onChange={setRefunds}>
        Refunds a name deleted in its first days
      </Check>
      <Check isSelected={wantsZone} onChange={setWantsZone}>
        Takes a transfer only once the zone is loaded there
      </Check>
      <PaymentMethods lines={paymentMethods} onChange={setPaymentMethods} />
      <Fields>
        <Field name="holder" label="Registers in the name of" defaultValue={account?.holder ?? ''} />
        <Field name="holderMail" label="The holder’s mail address there" defaultValue={account?.holderMail ?? ''} />
      </Fields>
      <Field name="notes" label="Notes" rows={2} defaultValue={account?.notes ?? ''} />
      <Actions>
        <Button type="submit" data-kind="primary">
          Save the account
        </Button>
        {account && account.names === 0 && <Button onPress={() => void remove()}>Remove it</Button>}
      </Actions>
    </Form>
  );
}

interface RuleFieldsProps {
  readonly account: HeldAccount | null;
  readonly currency: string;
  readonly onCurrency: (code: string) => void;
}

/** What the account is called, what is there, and how its registrar charges. */
function RuleFields(props: RuleFieldsProps) {
  return (
    <>
      <StandingSentence {...props} />
      <ChargeSentences {...props} />
    </>
  );
}

/** An amount of the account as its field shows it. */
const known = (minor: number | null | undefined, { account, currency }: RuleFieldsProps) =>
  minor === null || minor === undefined ? null : { minor, currency: account?.currency ?? currency };

function StandingSentence(props: RuleFieldsProps) {
  const { account, currency, onCurrency } = props;
  return (
    <Sentence>
      <Field
        data-wide="long"
        name="label"
        label="Label"
        hideLabel
        placeholder="label"
        defaultValue={account?.label ?? ''}
      />
      is an account at
      <Field
        data-wide="long"
        name="registrar"
        label="Registrar"
        hideLabel
        placeholder="registrar"
        defaultValue={account?.registrar ?? ''}
      />
      in
      <Field
        data-wide="short"
        name="currency"
        label="Currency"
        hideLabel
        value={currency}
        onChange={(code) => onCurrency(code.trim().toUpperCase())}
      />
      with a balance of
      <AmountField
        name="balanceMinor"
        label="Balance as last known"
        hideLabel
        placeholder="not said"
        currency={currency}
        amount={known(account?.balanceMinor, props)}
        negative
      />
      as last known.
    </Sentence>
  );
}

function ChargeSentences(props: RuleFieldsProps) {
  const { account, currency } = props;
  return (
    <>
      <Sentence>
        It charges <Rule account={account} name="leadDays" /> days before the end for{' '}
        <Rule account={account} name="yearsPerCharge" />
        years, and tries again
        <Field
          name="retryDays"
          label="Tries again, days before the end"
          hideLabel
          placeholder="like 3, 1"
          defaultValue={account?.retryDays.join(', ') ?? ''}
        />
        days before it.
      </Sentence>
      <Sentence>
        It keeps late names (grace period) for <Rule account={account} name="lateDays" /> days, for a fee of
        <AmountField
          name="lateFeeMinor"
          label="Late fee"
          hideLabel
          placeholder="none"
          currency={currency}
          amount={known(account?.lateFeeMinor || null, props)}
        />
        and auctions them on day <Rule account={account} name="auctionDay" />.
      </Sentence>
      <Sentence>
        To every price it adds tax of
        <Field
          data-wide="short"
          name="taxPercent"
          label="Tax on every price, percent"
          hideLabel
          placeholder="none"
          defaultValue={account?.taxPercent ? String(account.taxPercent) : ''}
          inputMode="decimal"
        />
        percent. It confirms a switch within <Rule account={account} name="switchHours" /> hours.
      </Sentence>
    </>
  );
}

/** A rule that is a whole number, as a blank in its sentence. */
function Rule({ account, name }: { account: HeldAccount | null; name: (typeof RULES)[number]['name'] }) {
  const { label, usual, blank } = RULES.find((rule) => rule.name === name) ?? RULES[0];
  return (
    <Field
      data-wide="short"
      name={name}
      label={label}
      hideLabel
      placeholder={blank}
      defaultValue={String(account?.[name] ?? usual)}
      inputMode="numeric"
    />
  );
}

/** The rules that are whole numbers, with what is usual. */
const RULES = [
  { name: 'leadDays', label: 'Charges, days before the end', blank: '0', usual: '5' },
  { name: 'lateDays', label: 'Late window (grace period), days', blank: '0', usual: '45' },
  { name: 'auctionDay', label: 'Auctions late names on day', blank: 'never', usual: '' },
  { name: 'yearsPerCharge', label: 'Years each charge buys', blank: '1', usual: '1' },
  { name: 'switchHours', label: 'Confirms a switch within, hours', blank: '?', usual: '' },
] as const;

function linesOf(account: HeldAccount | null): readonly PaymentMethodLine[] {
  return (account?.paymentMethods ?? []).map(({ kind, label, endsMonth }) => ({
    kind,
    label,
    endsMonth: endsMonth === null ? '' : formatMonth(endsMonth as Month),
    month: endsMonth ?? '',
  }));
}

/** What stands in the fields of the form, or why it cannot be. */
function rulesIn(form: FormData): Record<string, unknown> | Refusal {
  const tax = textOf(form, 'taxPercent') === '' ? 0 : readPercent(textOf(form, 'taxPercent'));
  if (isRefusal(tax)) return { ...tax, field: 'taxPercent' };
  return {
    label: textOf(form, 'label'),
    registrar: textOf(form, 'registrar'),
    ...Object.fromEntries(RULES.map(({ name }) => [name, textOf(form, name)])),
    retryDays: readWholeNumbers(textOf(form, 'retryDays')),
    lateFeeMinor: minorIn(form, 'lateFeeMinor'),
    balanceMinor: minorIn(form, 'balanceMinor'),
    taxPercent: tax,
    notes: textOf(form, 'notes'),
    holder: textOf(form, 'holder'),
    holderMail: textOf(form, 'holderMail'),
  };
}
