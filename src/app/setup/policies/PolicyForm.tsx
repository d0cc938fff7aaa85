'use client';
import { useState } from 'react';
import { lettersTaken, type Policy, type RuleSource } from '@/core/lifecycle';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Choice, Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Sentence } from '@/ui/text/Sentence';
import { Fields, Section } from '@/ui/text/Sheet';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { removePolicyAction, savePolicyAction } from '../actions';

const SOURCES: readonly RuleSource[] = ['standard', 'contract', 'common practice', 'memory'];

export function PolicyForm({ policy, onSaved }: { policy: Policy; onSaved: () => void }) {
  const { style } = useLedger();
  const [yearlyFee, setYearlyFee] = useState(policy.yearlyFee);
  const [verified, setVerified] = useState(policy.verified);
  const [source, setSource] = useState(policy.source);
  const { save, refused, isBusy } = useSave({ ledger: true });

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
        <TermSentences policy={policy} />
        <Fields>
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

/** What holds for a name under the ending, from its first year to its end, as sentences with blanks. */
function TermSentences({ policy }: { policy: Policy }) {
  const { least, greatest, step } = policy.terms.renew;
  return (
    <>
      <Sentence>
        Names under
        <Field name="ending" label="Ending" hideLabel defaultValue={policy.ending} isReadOnly={policy.ending !== ''} />
        have terms of
        <Whole name="leastYears" label="Least term, years" value={least} />
        to
        <Whole name="greatestYears" label="Greatest term, years" value={greatest} />
        years in steps of
        <Whole name="stepYears" label="In steps of, years" value={step} />
        and never end more than
        <Whole name="ceilingYears" label="Ceiling, years from now" value={policy.ceilingYears} />
        years from now.
      </Sentence>
      <Sentence>
        Fresh ones can be deleted for a refund within
        <Whole name="refundableDays" label="Refundable, days" value={policy.refundableDays} />
        days. Past their term they are late (grace period) for
        <Whole name="lateDays" label="Late window (grace period), days" value={policy.lateDays} />
        days, then in redemption for
        <Whole name="redemptionDays" label="Redemption, days" value={policy.redemptionDays} />
        days; a restore’s report is due within
        <Whole name="pendingRestoreDays" label="Restore report due, days" value={policy.pendingRestoreDays} />
        days. They are free
        <Whole name="pendingDeleteDays" label="Deletion, days" value={policy.pendingDeleteDays} />
        days after that.
      </Sentence>
      <Sentence>
        A transfer adds
        <Whole name="transferYears" label="Years a transfer adds" value={policy.transferYears} />
        years and locks the name for
        <Whole name="transferLockDays" label="Transfer lock, days" value={policy.transferLockDays} />
        days; a change of holder locks it for
        <Whole name="holderLockDays" label="Lock after a change of holder, days" value={policy.holderLockDays} />
        days.
      </Sentence>
    </>
  );
}

/** A whole number in a sentence. */
function Whole({ name, label, value }: { name: string; label: string; value: number }) {
  return (
    <Field data-wide="short" name={name} label={label} hideLabel defaultValue={String(value)} inputMode="numeric" />
  );
}
