'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Policy, RegistryFee, RuleSource } from '@/core/lifecycle';
import type { Amount } from '@/core/money';
import { isRefusal, type Refusal } from '@/core/refusal';
import { formatDay } from '@/core/time';
import { AmountField } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { DayField, dayIn, writtenDay } from '@/ui/controls/DayField';
import { Choice, Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { formatAmount } from '@/ui/text/figures';
import { Fields, Page, Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { useTitle } from '../../frame/Frame';
import { useLedger } from '../../frame/LedgerProvider';
import { removePolicyAction, savePolicyAction, saveRegistryFeeAction } from '../actions';

/** The lifecycle rules of every ending, with where each comes from, and the yearly registry fee. */
export function PoliciesScreen({ policies, fees }: { policies: readonly Policy[]; fees: readonly RegistryFee[] }) {
  useTitle('Policies', 'the periods and terms of each ending');
  const router = useRouter();
  const { reload } = useLedger();
  const [editing, setEditing] = useState<Policy | 'new' | null>(null);
  const refresh = async () => {
    setEditing(null);
    router.refresh();
    await reload();
  };
  const generic = policies.find((policy) => policy.ending === '*') ?? null;
  return (
    <Page>
      <Wide>
        <Ruled>
          <thead>
            <tr>
              <th>Ending</th>
              <th className="figure">Late window (grace period)</th>
              <th className="figure">Redemption</th>
              <th className="figure">Report due</th>
              <th className="figure">Deletion</th>
              <th className="figure">Refundable</th>
              <th>Terms</th>
              <th className="figure">Transfer adds</th>
              <th>Fee</th>
              <th>Source</th>
            </tr>
          </thead>
          <tbody>
            {policies.map((policy) => (
              <tr key={policy.ending}>
                <td>
                  <Button data-kind="plain" onPress={() => setEditing(policy)}>
                    {policy.ending === '*' ? 'all other endings' : `.${policy.ending}`}
                  </Button>
                </td>
                <td className="figure">{policy.lateDays}</td>
                <td className="figure">{policy.redemptionDays}</td>
                <td className="figure">{policy.pendingRestoreDays}</td>
                <td className="figure">{policy.pendingDeleteDays}</td>
                <td className="figure">{policy.refundableDays}</td>
                <td style={{ whiteSpace: 'nowrap' }}>
                  {policy.terms.renew.least} to {Math.min(policy.terms.renew.greatest, policy.ceilingYears)} years
                  {policy.terms.renew.step > 1 && ` by ${policy.terms.renew.step}`}
                </td>
                <td className="figure">{policy.transferYears}</td>
                <td>{policy.yearlyFee ? 'added' : 'none'}</td>
                <td>
                  {policy.source}, {formatDay(policy.sourceDate)}
                  {!policy.verified && <span className="caution"> unverified</span>}
                  {policy.sourceNote && <div className="soft">{policy.sourceNote}</div>}
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      </Wide>
      <Actions>
        <Button onPress={() => setEditing('new')}>Add an ending</Button>
      </Actions>
      <Fees fees={fees} onSaved={refresh} />
      <Dialog
        title={
          editing === 'new'
            ? 'A policy of its own'
            : editing
              ? `Policy of ${editing.ending === '*' ? 'all other endings' : `.${editing.ending}`}`
              : ''
        }
        isOpen={editing !== null}
        onClose={() => setEditing(null)}
      >
        {editing && generic && (
          <PolicyForm
            policy={
              editing === 'new'
                ? { ...generic, ending: '', verified: false, source: 'memory', sourceNote: '' }
                : editing
            }
            onSaved={refresh}
          />
        )}
      </Dialog>
    </Page>
  );
}

const SOURCES: readonly RuleSource[] = ['standard', 'contract', 'common practice', 'memory'];
const NUMBERS = [
  ['lateDays', 'Late window (grace period), days'],
  ['redemptionDays', 'Redemption, days'],
  ['pendingRestoreDays', 'Restore report due, days'],
  ['pendingDeleteDays', 'Deletion, days'],
  ['refundableDays', 'Refundable, days'],
  ['transferYears', 'Years a transfer adds'],
  ['transferLockDays', 'Transfer lock, days'],
  ['ceilingYears', 'Ceiling, years from now'],
] as const;

function PolicyForm({ policy, onSaved }: { policy: Policy; onSaved: () => Promise<void> }) {
  const { style } = useLedger();
  const [yearlyFee, setYearlyFee] = useState(policy.yearlyFee);
  const [verified, setVerified] = useState(policy.verified);
  const [source, setSource] = useState(policy.source);
  const [refused, setRefused] = useState<Refusal | null>(null);
  const { least, greatest, step } = policy.terms.renew;

  const save = async (sent: FormData) => {
    const form = Object.fromEntries([...sent].filter(([key]) => !key.includes('.')));
    const answer = await savePolicyAction({
      ...form,
      sourceDate: dayIn(sent, 'sourceDate'),
      yearlyFee,
      verified,
      source,
    });
    setRefused(isRefusal(answer) ? answer : null);
    if (!isRefusal(answer)) await onSaved();
  };
  return (
    <Form aria-label="A policy" refused={refused} onSubmit={save}>
      <Section>
        <Fields>
          <Field name="ending" label="Ending" defaultValue={policy.ending} isReadOnly={policy.ending !== ''} />
          {NUMBERS.map(([key, label]) => (
            <Field key={key} name={key} label={label} defaultValue={String(policy[key])} inputMode="numeric" />
          ))}
          <Field name="leastYears" label="Least term, years" defaultValue={String(least)} inputMode="numeric" />
          <Field
            name="greatestYears"
            label="Greatest term, years"
            defaultValue={String(greatest)}
            inputMode="numeric"
          />
          <Field name="stepYears" label="In steps of, years" defaultValue={String(step)} inputMode="numeric" />
          <Choice
            label="Source"
            value={source}
            onChange={setSource}
            options={SOURCES.map((value) => ({ value, text: value }))}
          />
          <DayField name="sourceDate" label="As of" defaultValue={style.today} />
        </Fields>
        <Field name="sourceNote" label="Where it is written" defaultValue={policy.sourceNote} />
        <Check isSelected={yearlyFee} onChange={setYearlyFee}>
          The yearly registry fee is added
        </Check>
        <Check isSelected={verified} onChange={setVerified}>
          Verified with the registry
        </Check>
        <Actions>
          <Button type="submit" data-kind="primary">
            Save the policy
          </Button>
          {policy.ending !== '*' && policy.ending !== '' && (
            <Button
              onPress={async () => {
                await removePolicyAction(policy.ending);
                await onSaved();
              }}
            >
              Use the generic one
            </Button>
          )}
        </Actions>
      </Section>
    </Form>
  );
}

function Fees({ fees, onSaved }: { fees: readonly RegistryFee[]; onSaved: () => Promise<void> }) {
  const { style } = useLedger();
  const [from, setFrom] = useState<string>(style.today);
  const [fee, setFee] = useState<Amount | null>(null);
  const save = async () => {
    const answer = await saveRegistryFeeAction(writtenDay(from), fee?.minor ?? Number.NaN, 'USD');
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else await onSaved();
  };
  return (
    <Section>
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
        <DayField label="From" value={from} onChange={(text) => setFrom(text)} />
        <AmountField label="A year, USD" currency="USD" onChange={(_, read) => setFee(read)} />
      </Fields>
      <Actions>
        <Button onPress={() => void save()} isDisabled={fee === null}>
          Set the fee
        </Button>
      </Actions>
    </Section>
  );
}
