'use client';
import { useState } from 'react';
import { readPercent } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import type { AnswerRule } from '@/core/selling';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields } from '@/ui/text/Sheet';
import { useSave } from '../../acts/useSave';
import { answerRuleAction } from '../actions';

const percentText = (share: number | null | undefined) => (share == null ? '' : String(Math.round(share * 100)));

/** A typed percentage; `NaN` where it is none, so that the command refuses it by name. */
function percentIn(form: FormData, name: string): number | undefined {
  const text = textOf(form, name);
  const percent = text === '' ? undefined : readPercent(text, 0, 1000);
  return isRefusal(percent) ? Number.NaN : percent;
}

/** How offers are answered while nobody looks. */
export function RulePart({ rule }: { rule: AnswerRule | null }) {
  const { save, refused, isBusy } = useSave();
  const [isOn, setOn] = useState(rule !== null);
  const saveRule = async (form: FormData) =>
    void (await save(
      answerRuleAction({
        isOn,
        acceptFrom: percentIn(form, 'acceptFrom'),
        counterWith: percentIn(form, 'counterWith'),
        counterDays: Number(textOf(form, 'counterDays') || '7'),
      }),
      'Saved.',
    ));
  return (
    <Form aria-label="Answers by rule" refused={refused} onSubmit={saveRule}>
      <h2>Answers by rule</h2>
      <p className="soft">
        Below the minimum an offer is declined at once, everywhere. Above it you answer, unless you set a rule.
      </p>
      <Check isSelected={isOn} onChange={setOn}>
        Answer offers by this rule
      </Check>
      {isOn && (
        <Fields>
          <Field
            name="acceptFrom"
            label="Accept from, percent of asking"
            defaultValue={percentText(rule?.acceptFrom)}
            inputMode="decimal"
            hint="empty: never"
          />
          <Field
            name="counterWith"
            label="Counter with, percent of asking"
            defaultValue={percentText(rule?.counterWith)}
            inputMode="decimal"
            hint="once in a thread; empty: never"
          />
          <Field
            name="counterDays"
            label="A counter stands, days"
            defaultValue={String(rule?.counterDays ?? 7)}
            inputMode="numeric"
          />
        </Fields>
      )}
      <Actions>
        <Button type="submit" isDisabled={isBusy}>
          Save the rule
        </Button>
      </Actions>
    </Form>
  );
}
