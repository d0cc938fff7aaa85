'use client';
import { useState } from 'react';
import { AmountField, decimalIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Choice, Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { editNamesAction } from '../../acts/edit/actions';
import { confirmSwitchAction } from '../../acts/switch/actions';
import { useAct } from '../../acts/useAct';

/** How a fact is edited where it is read. */
export type FactEdit =
  | {
      readonly kind: 'day';
      readonly field: 'expiresAt' | 'transferredAt' | 'holderChangedAt' | 'registeredAt';
      readonly value: string;
    }
  | {
      readonly kind: 'choice';
      readonly field: 'accountId' | 'purpose';
      readonly value: string;
      readonly options: readonly { readonly value: string; readonly text: string }[];
    }
  | { readonly kind: 'switch'; readonly what: 'auto-renew' | 'lock' | 'privacy'; readonly value: '' | 'on' | 'off' }
  | { readonly kind: 'amount'; readonly currency: string; readonly minor: number | null }
  | { readonly kind: 'tags'; readonly value: readonly string[] };

/** The value of one fact with the evidence for it: saved at once, taken back by undo. */
export function FactEditor({
  nameId,
  what,
  edit,
  onEnd,
}: {
  nameId: number;
  what: string;
  edit: FactEdit;
  onEnd: () => void;
}) {
  const { act, isBusy, refused } = useAct();
  const [chosen, setChosen] = useState(edit.kind === 'choice' || edit.kind === 'switch' ? edit.value : '');
  const save = async (form: FormData) => {
    const evidence = textOf(form, 'evidence');
    const done = await act(() =>
      edit.kind === 'switch'
        ? confirmSwitchAction({ nameIds: [nameId], what: edit.what, setting: chosen, evidence })
        : editNamesAction({ nameIds: [nameId], edit: { ...changeOf(edit, form, chosen), evidence } }),
    );
    if (done) onEnd();
  };
  // A day with its evidence needs it; what the office decides itself has none but the office.
  const wantsEvidence = edit.kind === 'day' || edit.kind === 'switch';
  return (
    <Form aria-label={`Edit ${what}`} refused={refused} onSubmit={save}>
      {edit.kind === 'day' && <DayField name={edit.field} label={what} hideLabel defaultValue={edit.value} autoFocus />}
      {(edit.kind === 'choice' || edit.kind === 'switch') && (
        <Choice
          label={what}
          hideLabel
          value={chosen}
          onChange={setChosen}
          options={edit.kind === 'choice' ? edit.options : SWITCH_OPTIONS}
        />
      )}
      {edit.kind === 'amount' && (
        <AmountField
          name="asking"
          label={`${what}, ${edit.currency}`}
          hideLabel
          currency={edit.currency}
          amount={edit.minor === null ? null : { minor: edit.minor, currency: edit.currency }}
          hint="empty: none"
          autoFocus
        />
      )}
      {edit.kind === 'tags' && (
        <Field
          name="tags"
          label={what}
          hideLabel
          defaultValue={edit.value.join(', ')}
          hint="separated by commas"
          autoFocus
        />
      )}
      {wantsEvidence && (
        <Field name="evidence" label="Where you saw it" defaultValue="the registrar’s panel" hint="kept with it" />
      )}
      <Actions>
        <Button type="submit" data-kind="primary" isDisabled={isBusy || (edit.kind === 'switch' && chosen === '')}>
          Save
        </Button>
        <Button onPress={onEnd}>Cancel</Button>
      </Actions>
    </Form>
  );
}

const SWITCH_OPTIONS = [
  { value: '', text: 'not known' },
  { value: 'on', text: 'on' },
  { value: 'off', text: 'off' },
];

/** What is to be changed, as the command takes it. */
function changeOf(edit: FactEdit, form: FormData, chosen: string): Record<string, unknown> {
  switch (edit.kind) {
    case 'day':
      return { [edit.field]: dayIn(form, edit.field) };
    case 'choice':
      return { [edit.field]: edit.field === 'accountId' ? Number(chosen) : chosen };
    case 'amount': {
      const amount = decimalIn(form, 'asking', edit.currency);
      return amount === '' ? { clearAsking: true } : { asking: { amount, currency: edit.currency } };
    }
    case 'tags': {
      const tags = textOf(form, 'tags')
        .split(',')
        .map((tag) => tag.trim())
        .filter(Boolean);
      return {
        addTags: tags.filter((tag) => !edit.value.includes(tag)),
        removeTags: edit.value.filter((tag) => !tags.includes(tag)),
      };
    }
    case 'switch':
      return {};
  }
}
