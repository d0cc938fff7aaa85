'use client';
import { readPercent } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { Ruled } from '@/ui/text/Sheet';
import { useSave } from '../acts/useSave';
import type { EndingView } from '../frame/views';
import { saveRiseAction } from './actions';
import { riseWords } from './priceWords';

export interface AccountNotes {
  readonly id: number;
  readonly label: string;
  readonly registrar: string;
  readonly notes: string;
}

/** What is known of each registrar beside its prices: how they rise, what a first price is bound to, and the office's own notes. */
export function NotesPart({ detail, notes }: { detail: EndingView; notes: readonly AccountNotes[] }) {
  return (
    <details>
      <summary>How each prices .{detail.ending}, and your notes</summary>
      <Ruled aria-label="Registrars">
        <tbody>
          {notes.map(({ id, label, notes: text }) => {
            const priced = detail.accounts.find(({ accountId }) => accountId === id);
            return (
              <tr key={id}>
                <td>
                  <Link href={`/setup/accounts/${id}`}>{label}</Link>
                </td>
                <td>
                  {priced && <div>Renewals: {riseWords(priced.rise)}</div>}
                  {priced?.condition && priced.condition !== 'any term' && <div>First price: {priced.condition}</div>}
                  <div className="soft">{text || 'No notes: write them with the account.'}</div>
                  <RiseForm accountId={id} ending={detail.ending} label={label} />
                </td>
              </tr>
            );
          })}
        </tbody>
      </Ruled>
    </details>
  );
}

interface RiseFormProps {
  readonly accountId: number;
  readonly ending: string;
  readonly label: string;
}

/** What the office expects of the prices there; empty, the list's own history says it again. */
function RiseForm({ accountId, ending, label }: RiseFormProps) {
  const { save, refused, setRefused, isBusy } = useSave({ ledger: true });
  const saveRise = async (form: FormData) => {
    const text = textOf(form, 'percent');
    const percent = text === '' ? undefined : readPercent(text, -90, 1000);
    if (isRefusal(percent)) return setRefused({ ...percent, field: 'percent' });
    await save(saveRiseAction({ accountId, ending, percent }), 'Saved.');
  };
  return (
    <Form aria-label={`Rise at ${label}`} refused={refused} onSubmit={saveRise}>
      <Actions>
        <Field
          name="percent"
          label={`Rises by, percent a year at ${label}`}
          hideLabel
          placeholder="percent a year"
          inputMode="decimal"
        />
        <Button type="submit" isDisabled={isBusy}>
          Expect this rise
        </Button>
      </Actions>
    </Form>
  );
}
