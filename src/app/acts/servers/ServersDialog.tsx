'use client';
import { useState } from 'react';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { namesWords } from '@/ui/text/words';
import { useLedger } from '../../frame/LedgerProvider';
import type { RowView } from '../../frame/views';
import { useSave } from '../useSave';
import { changeNameServersAction } from './actions';

interface ServersDialogProps {
  readonly isOpen: boolean;
  readonly onClose: () => void;
  /** Every name it is about; `rows` are the first of them. */
  readonly nameIds: readonly number[];
  readonly rows: readonly RowView[];
}

/** Changes the name servers of names: over the links, and taken down where it was done by hand. */
export function ServersDialog({ isOpen, onClose, nameIds, rows }: ServersDialogProps) {
  const title = rows.length === 1 ? rows[0]?.name.unicode : namesWords(nameIds.length);
  return (
    <Dialog title={`Name servers of ${title}`} isOpen={isOpen && rows.length > 0} onClose={onClose}>
      <ServersForm nameIds={nameIds} rows={rows} onClose={onClose} />
    </Dialog>
  );
}

function ServersForm({ nameIds, rows, onClose }: Omit<ServersDialogProps, 'isOpen'>) {
  const { meta } = useLedger();
  const { save, refused, isBusy } = useSave({ ledger: true });
  const [byHand, setByHand] = useState(false);
  const [evenIfSigned, setEvenIfSigned] = useState(false);
  const unlinked = [...new Set(rows.map(({ name }) => name.accountId))].flatMap(
    (id) => meta?.rules.accounts.find((account) => account.id === id && !account.linked) ?? [],
  );
  const change = async (form: FormData) => {
    const asked = changeNameServersAction({ nameIds, hosts: textOf(form, 'hosts'), byHand, evenIfSigned });
    const done = await save(asked, ({ changed }) => `Name servers of ${namesWords(changed)} are set.`);
    if (done === null) return;
    const [first] = done.problems;
    if (first)
      report({
        text: `Not set for ${namesWords(done.problems.length)}. ${first.name}: ${first.problem}.`,
        problem: true,
      });
    onClose();
  };
  return (
    <Form aria-label="Name servers" refused={refused} onSubmit={change}>
      <Field
        name="hosts"
        label="Name servers, one a line"
        rows={4}
        hint="like ns1.quaymark.test; all that are to answer"
      />
      <p className="soft">
        The zone has to be there already: a name whose new servers know nothing of it stops working.
      </p>
      {unlinked.length > 0 && (
        <Check isSelected={byHand} onChange={setByHand}>
          I have set them by hand at {unlinked.map(({ label }) => label).join(', ')}
        </Check>
      )}
      <Check isSelected={evenIfSigned} onChange={setEvenIfSigned}>
        Signed names too: the new servers show the same keys
      </Check>
      <Actions>
        <Button type="submit" data-kind="primary" isDisabled={isBusy}>
          Change them for {namesWords(nameIds.length)}
        </Button>
        <Button onPress={onClose}>Cancel</Button>
      </Actions>
    </Form>
  );
}
