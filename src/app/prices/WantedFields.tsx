'use client';
import { MOST_YEARS } from '@/core/ledger';
import { Check } from '@/ui/controls/Check';
import { Choice, Field } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields } from '@/ui/text/Sheet';
import { yearsWords } from '@/ui/text/words';
import { useLedger } from '../frame/LedgerProvider';
import type { Wanted } from './usePrices';

const YEARS = Array.from({ length: MOST_YEARS }, (_, i) => ({ value: String(i + 1), text: yearsWords(i + 1) }));
const NEW = 'new';

/** Over how many years, for which name, and who buys. */
export function WantedFields({ wanted, onChange }: { wanted: Wanted; onChange: (wanted: Wanted) => void }) {
  const { meta } = useLedger();
  const accounts = meta?.rules.accounts ?? [];
  const set = (change: Partial<Wanted>) => onChange({ ...wanted, ...change });
  const toggle = (id: number, isNew: boolean) =>
    set({ newAt: new Set(isNew ? [...wanted.newAt, id] : [...wanted.newAt].filter((one) => one !== id)) });
  return (
    <>
      <Fields>
        <Choice
          label="Over"
          value={String(wanted.years)}
          onChange={(years) => set({ years: Number(years) })}
          options={YEARS}
        />
        <Choice
          label="For"
          value={wanted.heldAt === null ? NEW : String(wanted.heldAt)}
          onChange={(at) => set({ heldAt: at === NEW ? null : Number(at) })}
          options={[
            { value: NEW, text: 'a new name' },
            ...accounts.map(({ id, label }) => ({ value: String(id), text: `a name held at ${label}` })),
          ]}
        />
        {wanted.heldAt !== null && (
          <Field
            label="Months left of its term"
            value={String(wanted.monthsLeft)}
            inputMode="numeric"
            onChange={(text) => set({ monthsLeft: Math.min(120, Math.max(0, Math.round(Number(text)) || 0)) })}
          />
        )}
        <Field
          label="Code"
          value={wanted.code}
          onChange={(code) => set({ code })}
          hint="told where a first price asks for it"
        />
      </Fields>
      <details>
        <summary>Who buys, and what comes with it</summary>
        <Actions>
          <Check isSelected={wanted.privacy} onChange={(privacy) => set({ privacy })}>
            With privacy
          </Check>
          {accounts.map(({ id, label }) => (
            <Check key={id} isSelected={wanted.newAt.has(id)} onChange={(isNew) => toggle(id, isNew)}>
              New customer at {label}
            </Check>
          ))}
        </Actions>
      </details>
    </>
  );
}
