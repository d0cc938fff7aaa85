'use client';
import { useState } from 'react';
import { PURPOSES } from '@/core/ledger';
import { type Amount, formatDecimal } from '@/core/money';
import { formatTermEnd, type TermEnd } from '@/core/time';
import { readPhrases } from '@/formats/lists/readWords';
import { AmountField } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { DayField, writtenDay } from '@/ui/controls/DayField';
import { Choice, Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { namesWords } from '@/ui/text/words';
import { useLedger } from '../../frame/LedgerProvider';
import type { RowView } from '../../frame/views';
import { useAct } from '../useAct';
import { editNamesAction } from './actions';

interface EditDialogProps {
  readonly isOpen: boolean;
  readonly onClose: () => void;
  /** Every name it is about; `rows` are the first of them. */
  readonly nameIds: readonly number[];
  readonly rows: readonly RowView[];
  readonly tags: readonly string[];
}

/** Changes the chosen names together. What is left alone stays as it is on each. */
export function EditDialog({ isOpen, onClose, ...rest }: EditDialogProps) {
  return (
    <Dialog title={`Edit ${namesWords(rest.nameIds.length)}`} isOpen={isOpen} onClose={onClose}>
      <EditForm {...rest} onClose={onClose} />
    </Dialog>
  );
}

const KEEP = 'as it is';
const keep = { value: KEEP, text: 'Leave as it is' };

function EditForm({ nameIds, onClose, tags }: Omit<EditDialogProps, 'isOpen'>) {
  const { homeCurrency } = useLedger();
  const [account, setAccount] = useState(KEEP);
  const [purpose, setPurpose] = useState(KEEP);
  const [never, setNever] = useState(KEEP);
  const [add, setAdd] = useState('');
  const [remove, setRemove] = useState('');
  const [asking, setAsking] = useState<{ text: string; read: Amount | null }>({ text: '', read: null });
  const [notes, setNotes] = useState('');
  const [mailBy, setMailBy] = useState('');
  const [ends, setEnds] = useState<{ text: string; read: TermEnd | null }>({ text: '', read: null });
  const [moved, setMoved] = useState(NOTHING_MOVED);
  const [evidence, setEvidence] = useState('');
  const { act, isBusy, refused } = useAct();

  const save = async () => {
    // What is no amount is refused where it stands.
    if (asking.text.trim() !== '' && asking.read === null) return;
    const edit = {
      ...(account !== KEEP && { accountId: Number(account) }),
      ...(purpose !== KEEP && { purpose }),
      ...(never !== KEEP && { neverLost: never === 'yes' }),
      ...(add.trim() && { addTags: readPhrases(add) }),
      ...(remove.trim() && { removeTags: readPhrases(remove) }),
      ...(asking.read && { asking: { amount: formatDecimal(asking.read), currency: asking.read.currency } }),
      ...(mailBy.trim() && { confirmMailBy: writtenDay(mailBy) }),
      ...(ends.text.trim() && { expiresAt: ends.read ? formatTermEnd(ends.read) : ends.text.trim() }),
      ...movedEdit(moved),
      ...(evidence.trim() && { evidence: evidence.trim() }),
      ...(notes.trim() && { notes: notes.trim() }),
    };
    if (await act(() => editNamesAction({ nameIds, edit }))) onClose();
  };

  return (
    <Form aria-label="Edit" refused={refused} onSubmit={save}>
      <AccountChoice account={account} onAccount={setAccount} />
      <DayField
        name="edit.expiresAt"
        label="The term ends"
        value={ends.text}
        onChange={(text, read) => setEnds({ text, read })}
        hint="the day alone, or with its time: 21 Sep 2027 10:15 UTC"
        time
      />
      <MovedFields moved={moved} onChange={setMoved} />
      <Field
        name="edit.evidence"
        label="Where that was seen"
        value={evidence}
        onChange={setEvidence}
        hint="kept with the change"
      />
      <Standing purpose={purpose} never={never} onPurpose={setPurpose} onNever={setNever} />
      <TagFields add={add} remove={remove} inUse={tags} onAdd={setAdd} onRemove={setRemove} />
      <AmountField
        label={`Asking price, ${homeCurrency}`}
        currency={homeCurrency}
        value={asking.text}
        onChange={(text, read) => setAsking({ text, read })}
      />
      <DayField
        name="edit.confirmMailBy"
        label="Holder’s mail has to be confirmed by"
        value={mailBy}
        onChange={(text) => setMailBy(text)}
      />
      <Field name="edit.notes" label="Notes" value={notes} onChange={setNotes} rows={2} />
      <Actions>
        <Button type="submit" data-kind="primary" isDisabled={isBusy}>
          Set on {namesWords(nameIds.length)}
        </Button>
        <Button onPress={onClose}>Cancel</Button>
      </Actions>
    </Form>
  );
}

interface Moved {
  readonly transferred: string;
  readonly holderChanged: string;
  readonly waived: string;
}

const NOTHING_MOVED: Moved = { transferred: '', holderChanged: '', waived: KEEP };

const movedEdit = ({ transferred, holderChanged, waived }: Moved) => ({
  ...(transferred.trim() && { transferredAt: writtenDay(transferred) }),
  ...(holderChanged.trim() && { holderChangedAt: writtenDay(holderChanged) }),
  ...(waived !== KEEP && { holderLockWaived: waived === 'yes' }),
});

/** What locks a name against a transfer for a while. */
function MovedFields({ moved, onChange }: { moved: Moved; onChange: (moved: Moved) => void }) {
  return (
    <details>
      <summary>Last transfer, and change of holder</summary>
      <DayField
        name="edit.transferredAt"
        label="Last transferred on"
        value={moved.transferred}
        onChange={(transferred) => onChange({ ...moved, transferred })}
      />
      <DayField
        name="edit.holderChangedAt"
        label="Holder last changed on"
        value={moved.holderChanged}
        onChange={(holderChanged) => onChange({ ...moved, holderChanged })}
      />
      <Choice
        label="The lock after a change of holder was waived"
        value={moved.waived}
        onChange={(waived) => onChange({ ...moved, waived })}
        options={[keep, { value: 'yes', text: 'Yes, before the change' }, { value: 'no', text: 'No' }]}
      />
    </details>
  );
}

function AccountChoice({ account, onAccount }: { account: string; onAccount: (account: string) => void }) {
  const { meta } = useLedger();
  return (
    <Choice
      label="Account"
      value={account}
      onChange={onAccount}
      options={[keep, ...(meta?.rules.accounts ?? []).map(({ id, label }) => ({ value: String(id), text: label }))]}
    />
  );
}

interface StandingProps {
  readonly purpose: string;
  readonly never: string;
  readonly onPurpose: (purpose: string) => void;
  readonly onNever: (never: string) => void;
}

/** What the names are for, and whether they must never be lost. */
function Standing({ purpose, never, onPurpose, onNever }: StandingProps) {
  return (
    <>
      <Choice
        label="Purpose"
        value={purpose}
        onChange={onPurpose}
        options={[keep, ...PURPOSES.map((value) => ({ value: value as string, text: value }))]}
      />
      <Choice
        label="Never to be lost"
        value={never}
        onChange={onNever}
        options={[keep, { value: 'yes', text: 'Yes' }, { value: 'no', text: 'No' }]}
      />
    </>
  );
}

interface TagFieldsProps {
  readonly add: string;
  readonly remove: string;
  readonly inUse: readonly string[];
  readonly onAdd: (tags: string) => void;
  readonly onRemove: (tags: string) => void;
}

/** Tags that come to the names, and those that go. */
function TagFields({ add, remove, inUse, onAdd, onRemove }: TagFieldsProps) {
  return (
    <>
      <Field
        name="edit.addTags"
        label="Add tags"
        value={add}
        onChange={onAdd}
        hint={inUse.length > 0 ? `In use: ${inUse.slice(0, 8).join(', ')}` : 'Separated by commas'}
      />
      <Field name="edit.removeTags" label="Take tags off" value={remove} onChange={onRemove} />
    </>
  );
}
