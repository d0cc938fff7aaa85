'use client';
import { useRouter } from 'next/navigation';
import { type FormEvent, useState } from 'react';
import { readPercent } from '@/core/money';
import { isRefusal, type Refusal } from '@/core/refusal';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Field } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Fields, Notice, Page, Section } from '@/ui/text/Sheet';
import type { AccountRow } from '@/usecases/accounts/accounts';
import type { PriceRow } from '@/usecases/accounts/prices';
import type { LinkRow } from '@/usecases/links/links';
import { useTitle } from '../../../frame/Frame';
import { useLedger } from '../../../frame/LedgerProvider';
import { removeAccountAction, saveAccountAction } from '../../actions';
import { LinkSection } from './LinkSection';
import { type MeansLine, MeansList } from './MeansList';
import { PriceBook } from './PriceBook';

/** One account: its rules, its means of payment in order, its balance, and its price book. */
export function AccountScreen({
  account,
  prices,
  link,
  needsLogin = false,
}: {
  account: AccountRow | null;
  prices: readonly PriceRow[];
  link: LinkRow | null;
  /** Another key has sealed the link's password. */
  needsLogin?: boolean;
}) {
  useTitle(account?.label ?? 'New account', account ? `${account.names} names` : '');
  return (
    <Page>
      {account && !account.rulesKnown && (
        <Notice>
          These are the usual rules, taken because nobody has said better: charged 5 days before the end, 45 days of
          late window. Check them at the registrar, then save.
        </Notice>
      )}
      <AccountForm account={account} />
      {account && <LinkSection accountId={account.id} link={link} needsLogin={needsLogin} />}
      {account && <PriceBook accountId={account.id} currency={account.currency} prices={prices} />}
    </Page>
  );
}

function AccountForm({ account }: { account: AccountRow | null }) {
  const router = useRouter();
  const { homeCurrency, reload } = useLedger();
  const [means, setMeans] = useState<readonly MeansLine[]>(
    (account?.means ?? []).map((line) => ({
      kind: line.kind,
      label: line.label,
      endsMonth: line.endsMonth ?? '',
    })),
  );
  const [refunds, setRefunds] = useState(account?.refunds ?? false);
  const [refused, setRefused] = useState<Refusal | null>(null);
  const [currency, setCurrency] = useState(account?.currency ?? homeCurrency);
  const known = (minor: number | null | undefined) =>
    minor === null || minor === undefined ? null : { minor, currency: account?.currency ?? homeCurrency };
  const problem = (field: string) => (refused?.field === field ? refused.message : null);

  const save = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    const text = (key: string) => String(form.get(key) ?? '').trim();
    const tax = text('taxPercent') === '' ? 0 : readPercent(text('taxPercent'));
    if (isRefusal(tax)) {
      setRefused({ ...tax, field: 'taxPercent' });
      return;
    }
    const answer = await saveAccountAction(account?.id ?? null, {
      label: text('label'),
      registrar: text('registrar'),
      currency,
      leadDays: text('leadDays'),
      lateDays: text('lateDays'),
      lateFeeMinor: minorIn(form, 'lateFee'),
      auctionDay: text('auctionDay'),
      yearsPerCharge: text('yearsPerCharge'),
      retryDays: text('retryDays')
        .split(/[\s,]+/)
        .filter(Boolean)
        .map(Number),
      taxPercent: tax,
      refunds,
      balanceMinor: minorIn(form, 'balance'),
      means,
      notes: text('notes'),
    });
    setRefused(isRefusal(answer) ? answer : null);
    if (isRefusal(answer)) return;
    report({ text: 'Account saved.' });
    await reload();
    if (account) router.refresh();
    else router.push(`/setup/accounts/${answer}`);
  };

  const remove = async () => {
    if (!account) return;
    const answer = await removeAccountAction(account.id);
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else router.push('/setup/accounts');
  };

  return (
    <form onSubmit={(event) => void save(event)}>
      <Section>
        <Fields>
          <Field name="label" label="Label" defaultValue={account?.label ?? ''} isRequired problem={problem('label')} />
          <Field name="registrar" label="Registrar" defaultValue={account?.registrar ?? ''} />
          <Field
            label="Currency"
            value={currency}
            onChange={(code) => setCurrency(code.trim().toUpperCase())}
            problem={problem('currency')}
          />
          <Field
            name="leadDays"
            label="Charges, days before the end"
            defaultValue={String(account?.leadDays ?? 5)}
            inputMode="numeric"
            problem={problem('leadDays')}
          />
          <Field
            name="lateDays"
            label="Late window, days"
            defaultValue={String(account?.lateDays ?? 45)}
            inputMode="numeric"
            hint="auto-renew grace, 0 for none"
            problem={problem('lateDays')}
          />
          <AmountField
            name="lateFee"
            label="Late fee"
            currency={currency}
            amount={known(account?.lateFeeMinor || null)}
            problem={problem('lateFeeMinor')}
          />
          <Field
            name="auctionDay"
            label="Auctions late names on day"
            defaultValue={String(account?.auctionDay ?? '')}
            inputMode="numeric"
            hint="empty for never"
            problem={problem('auctionDay')}
          />
          <Field
            name="yearsPerCharge"
            label="Years each charge buys"
            defaultValue={String(account?.yearsPerCharge ?? 1)}
            inputMode="numeric"
            problem={problem('yearsPerCharge')}
          />
          <Field
            name="retryDays"
            label="Tries again, days before the end"
            defaultValue={account?.retryDays.join(', ') ?? ''}
            hint="like 3, 1"
            problem={problem('retryDays')}
          />
          <Field
            name="taxPercent"
            label="Tax on every price, percent"
            defaultValue={account?.taxPercent ? String(account.taxPercent) : ''}
            inputMode="decimal"
            problem={problem('taxPercent')}
          />
          <AmountField
            name="balance"
            label="Balance as last known"
            currency={currency}
            amount={known(account?.balanceMinor)}
            negative
            hint="empty: not said"
            problem={problem('balanceMinor')}
          />
        </Fields>
        <Check isSelected={refunds} onChange={setRefunds}>
          Credits a name deleted in its first days
        </Check>
        <MeansList
          means={means}
          onChange={setMeans}
          problem={refused?.field?.startsWith('means') ? refused.message : null}
        />
        <Field name="notes" label="Notes" rows={2} defaultValue={account?.notes ?? ''} />
        {refused && !refused.field && (
          <p className="caution" role="alert">
            {refused.message}
          </p>
        )}
        <Actions>
          <Button type="submit" data-kind="primary">
            Save the account
          </Button>
          {account && account.names === 0 && <Button onPress={() => void remove()}>Remove it</Button>}
        </Actions>
      </Section>
    </form>
  );
}
