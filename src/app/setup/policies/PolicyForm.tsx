'use client';
import { useState } from 'react';
import { lettersTaken, type Policy, type RuleSource } from '@/core/lifecycle';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Choice, Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields, Section } from '@/ui/text/Sheet';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { removePolicyAction, savePolicyAction } from '../actions';

const SOURCES: readonly RuleSource[] = ['standard', 'contract', 'common practice', 'memory'];

const NUMBERS = [
  ['lateDays', 'Late window (grace period), days'],
  ['redemptionDays', 'Redemption, days'],
  ['pendingRestoreDays', 'Restore report due, days'],
  ['pendingDeleteDays', 'Deletion, days'],
  ['refundableDays', 'Refundable, days'],
  ['transferYears', 'Years a transfer adds'],
  ['transferLockDays', 'Transfer lock, days'],
  ['holderLockDays', 'Lock after a change of holder, days'],
  ['ceilingYears', 'Ceiling, years from now'],
] as const;

export function PolicyForm({ policy, onSaved }: { policy: Policy; onSaved: () => void }) {
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
        <Field
          name="letters"
          label="Letters beyond a to z that it takes; “none”, or empty where that is not known"
          defaultValue={lettersTaken(policy) === '' ? 'none' : (lettersTaken(policy) ?? '')}
        />
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
