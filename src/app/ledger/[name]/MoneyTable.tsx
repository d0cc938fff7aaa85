'use client';
import { useState } from 'react';
import { type EntryKind, isReceived } from '@/core/journal';
import { sumByCurrency } from '@/core/money';
import { isRefusal, type Refusal } from '@/core/refusal';
import { formatDay } from '@/core/time';
import { AmountField, minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Choice, Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { formatAmount, formatFigure } from '@/ui/text/figures';
import { Fields, Ruled, Section } from '@/ui/text/Sheet';
import { amountsWords } from '@/ui/text/words';
import type { EntryRow, NameDetail } from '@/usecases/names/detail';
import { useLedger } from '../../frame/LedgerProvider';
import { addEntryAction, correctEntryAction } from '../actions';

interface MoneyTableProps {
  readonly detail: NameDetail;
  readonly kinds: readonly EntryKind[];
  readonly disabled: boolean;
  readonly onChanged: () => Promise<void>;
}

/** Every amount spent on or received for a name. What is wrong is taken back by a counter-entry; nothing is ever erased. */
export function MoneyTable({ detail, kinds, disabled, onChanged }: MoneyTableProps) {
  const [adding, setAdding] = useState(false);
  const [correcting, setCorrecting] = useState<EntryRow | null>(null);
  const { entries } = detail;

  const correct = async (entry: EntryRow) => {
    const answer = await correctEntryAction(entry.id);
    setCorrecting(null);
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else await onChanged();
  };

  return (
    <Section aria-label="Money">
      <Actions>
        <h2>Money</h2>
        <Button data-kind="plain" isDisabled={disabled} onPress={() => setAdding(true)}>
          Add an entry…
        </Button>
      </Actions>
      <EntriesTable entries={entries} disabled={disabled} onCorrect={setCorrecting} />
      <Dialog title={`An entry for ${detail.unicode}`} isOpen={adding} onClose={() => setAdding(false)}>
        <EntryForm nameId={detail.id} kinds={kinds} onClose={() => setAdding(false)} onChanged={onChanged} />
      </Dialog>
      <Dialog title="Take this entry back" isOpen={correcting !== null} onClose={() => setCorrecting(null)}>
        {correcting && (
          <>
            <p>
              A counter-entry of {formatAmount({ minor: -correcting.minor, currency: correcting.currency })} is written
              beside {correcting.kind} of {formatDay(correcting.onDay)}. Both stay in the books.
            </p>
            <Actions>
              <Button data-kind="primary" onPress={() => void correct(correcting)}>
                Take it back
              </Button>
              <Button onPress={() => setCorrecting(null)}>Leave it</Button>
            </Actions>
          </>
        )}
      </Dialog>
    </Section>
  );
}

interface EntryFormProps {
  readonly nameId: number;
  readonly kinds: readonly EntryKind[];
  readonly onClose: () => void;
  readonly onChanged: () => Promise<void>;
}

function EntryForm({ nameId, kinds, onClose, onChanged }: EntryFormProps) {
  const { style, homeCurrency } = useLedger();
  const [kind, setKind] = useState<EntryKind>('renewal');
  const [currency, setCurrency] = useState(homeCurrency);
  const [refused, setRefused] = useState<Refusal | null>(null);

  const save = async (form: FormData) => {
    const text = (key: string) => textOf(form, key);
    const answer = await addEntryAction({
      nameId,
      onDay: dayIn(form, 'onDay'),
      kind,
      minor: minorIn(form, 'minor') ?? Number.NaN,
      currency,
      paymentMethod: text('paymentMethod'),
      reference: text('reference'),
      note: text('note'),
    });
    setRefused(isRefusal(answer) ? answer : null);
    if (isRefusal(answer)) return;
    onClose();
    await onChanged();
  };

  return (
    <Form aria-label="An entry" refused={refused} onSubmit={save}>
      <Section>
        <Fields>
          <Choice
            label="For"
            value={kind}
            onChange={setKind}
            options={kinds.map((value) => ({ value, text: value }))}
          />
          <DayField name="onDay" label="On" defaultValue={style.today} />
          <AmountField
            name="minor"
            currency={currency}
            label={isReceived(kind) ? 'Amount received' : 'Amount spent'}
            autoFocus
          />
          <Field
            name="currency"
            label="Currency"
            value={currency}
            onChange={(code) => setCurrency(code.trim().toUpperCase())}
          />
          <Field name="paymentMethod" label="Paid by" />
          <Field name="reference" label="Reference" />
        </Fields>
        <Field name="note" label="Note" />
        <Actions>
          <Button type="submit" data-kind="primary">
            Enter it
          </Button>
          <Button onPress={onClose}>Cancel</Button>
        </Actions>
      </Section>
    </Form>
  );
}

/** The entries of a name, those taken back too, and their sum. */
function EntriesTable({
  entries,
  disabled,
  onCorrect,
}: {
  entries: NameDetail['entries'];
  disabled: boolean;
  onCorrect: (entry: EntryRow) => void;
}) {
  const spent = sumByCurrency(entries.filter((entry) => entry.kind !== 'sale'));
  return (
    <Ruled>
      <tbody>
        {entries.map((entry) => {
          const off = entry.correctedBy !== null || entry.corrects !== null;
          return (
            <tr key={entry.id} data-off={off}>
              <td>{formatDay(entry.onDay)}</td>
              <td>
                {entry.kind}
                {entry.note && <span className="soft"> {entry.note}</span>}
                {entry.person !== null && <span className="soft"> by {entry.person}</span>}
                {entry.reference && <span className="soft"> · {entry.reference}</span>}
                {entry.quotedMinor !== null && entry.quotedMinor !== entry.minor && (
                  <div className="soft">
                    quoted {formatAmount({ minor: entry.quotedMinor, currency: entry.currency })}
                  </div>
                )}
                {entry.correctedBy !== null && <span className="soft"> (taken back)</span>}
              </td>
              <td className="figure">{formatFigure(entry)}</td>
              <td className="figure">
                {!off && !disabled && (
                  <Button
                    data-kind="plain"
                    aria-label={`Take back ${entry.kind} of ${formatDay(entry.onDay)}`}
                    onPress={() => onCorrect(entry)}
                  >
                    ↩
                  </Button>
                )}
              </td>
            </tr>
          );
        })}
        {entries.length === 0 && (
          <tr>
            <td className="soft">Nothing has been entered.</td>
          </tr>
        )}
      </tbody>
      {entries.length > 0 && (
        <tfoot>
          <tr>
            <td />
            <td>spent so far</td>
            <td className="figure">{amountsWords(spent)}</td>
            <td />
          </tr>
        </tfoot>
      )}
    </Ruled>
  );
}
