'use client';
import { useState } from 'react';
import type { Policy, RegistryFee, RuleSource } from '@/core/lifecycle';
import { formatDay } from '@/core/time';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Choice, Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Fields, Page, Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { useSave } from '../../acts/useSave';
import { useTitle } from '../../frame/Frame';
import { useLedger } from '../../frame/LedgerProvider';
import { removePolicyAction, savePolicyAction, saveRegistryFeeAction } from '../actions';

/** The lifecycle rules of every ending, with where each comes from, and the yearly registry fee. */
export function PoliciesScreen({ policies, fees }: { policies: readonly Policy[]; fees: readonly RegistryFee[] }) {
  useTitle('Policies', 'the periods and terms of each ending');
  const [editing, setEditing] = useState<Policy | 'new' | null>(null);
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
      <Fees fees={fees} />
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
            onSaved={() => setEditing(null)}
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

function PolicyForm({ policy, onSaved }: { policy: Policy; onSaved: () => void }) {
  const { style } = useLedger();
  const [yearlyFee, setYearlyFee] = useState(policy.yearlyFee);
  const [verified, setVerified] = useState(policy.verified);
  const [source, setSource] = useState(policy.source);
  const { save, refused, isBusy } = useSave({ ledger: true });
  const { least, greatest, step } = policy.terms.renew;

  const savePolicy = async (sent: FormData) => {
    const form = Object.fromEntries([...sent].filter(([key]) => !key.includes('.')));
    const asked = savePolicyAction({
      ...form,
      sourceDate: dayIn(sent, 'sourceDate'),
      yearlyFee,
      verified,
      source,
    });
    if ((await save(asked, 'The policy is saved.')) !== null) onSaved();
  };
  return (
    <Form aria-label="A policy" refused={refused} onSubmit={savePolicy}>
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
          <Button type="submit" data-kind="primary" isDisabled={isBusy}>
            Save the policy
          </Button>
          {policy.ending !== '*' && policy.ending !== '' && (
            <Button
              onPress={async () => {
                await save(removePolicyAction(policy.ending), `The generic policy holds for ${policy.ending} now.`);
                onSaved();
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

function Fees({ fees }: { fees: readonly RegistryFee[] }) {
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
