'use client';
import { X } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Dialog, DialogTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { isRefusal, type Refusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { report } from '@/ui/overlay/Toasts';
import type { SavedView } from '@/usecases/names/views';
import { dropViewAction, saveViewAction } from './actions';
import { Sheet } from './FilterChips';
import { COLUMN_IDS, LEDGER_COLUMNS } from './ledgerColumns';
import type { Columns } from './useColumns';

const ViewLine = styled.div`
  display: flex;
  justify-content: space-between;
`;

interface ViewsMenuProps {
  readonly views: readonly SavedView[];
  readonly query: string;
  readonly columns: Columns;
}

/** The views that were kept, to be opened or forgotten, and keeping the one that is shown. */
export function ViewsMenu({ views: first, query, columns }: ViewsMenuProps) {
  const router = useRouter();
  const [views, setViews] = useState(first);
  const [label, setLabel] = useState('');
  const [refused, setRefused] = useState<Refusal | null>(null);
  const save = async () => {
    const answer = await saveViewAction(label, query, columns.shown);
    setRefused(isRefusal(answer) ? answer : null);
    if (isRefusal(answer)) return;
    setViews(answer);
    setLabel('');
    report({ text: `Kept as “${label.trim()}”.` });
  };
  const open = ({ query: kept, columns: shown }: SavedView) =>
    router.push(`/ledger?${kept}${shown.length > 0 ? `&columns=${shown.join(',')}` : ''}`);
  return (
    <DialogTrigger>
      <Button data-kind="plain">Views</Button>
      <Sheet>
        <Dialog aria-label="Views">
          {views.map((saved) => (
            <ViewLine key={saved.id}>
              <Button data-kind="plain" slot="close" onPress={() => open(saved)}>
                {saved.label}
              </Button>
              <Button
                data-kind="plain"
                aria-label={`Delete the view ${saved.label}`}
                onPress={async () => {
                  const left = await dropViewAction(saved.id);
                  if (isRefusal(left)) setRefused(left);
                  else setViews(left);
                }}
              >
                <X size={12} aria-hidden />
              </Button>
            </ViewLine>
          ))}
          {views.length === 0 && <span className="soft">No view has been kept yet.</span>}
          <Form aria-label="Keep this view" refused={refused} onSubmit={save}>
            <Field name="label" label="Keep this view as" value={label} onChange={setLabel} />
            <Button type="submit">Save this view</Button>
          </Form>
        </Dialog>
      </Sheet>
    </DialogTrigger>
  );
}

/** Which columns are shown. */
export function ColumnsMenu({ columns }: { columns: Columns }) {
  return (
    <DialogTrigger>
      <Button data-kind="plain">Columns</Button>
      <Sheet>
        <Dialog aria-label="Columns">
          {COLUMN_IDS.map((id) => (
            <Check
              key={id}
              isSelected={columns.shown.includes(id)}
              isDisabled={id === 'name'}
              onChange={(on) =>
                columns.setShown(on ? [...columns.shown, id] : columns.shown.filter((other) => other !== id))
              }
            >
              {LEDGER_COLUMNS[id].label}
            </Check>
          ))}
        </Dialog>
      </Sheet>
    </DialogTrigger>
  );
}
