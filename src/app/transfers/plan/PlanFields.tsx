'use client';
import { MOST_YEARS } from '@/core/ledger';
import { AmountField } from '@/ui/controls/AmountField';
import { Check } from '@/ui/controls/Check';
import { Choice } from '@/ui/controls/Field';
import { Fields } from '@/ui/text/Sheet';
import { namesWords, yearsWords } from '@/ui/text/words';
import { useLedger } from '../../frame/LedgerProvider';
import type { PlannedNames } from '../../frame/views';
import type { PlanWish } from './usePlan';

const YEARS = Array.from({ length: MOST_YEARS }, (_, i) => ({ value: String(i + 1), text: yearsWords(i + 1) }));
const CHEAPEST = 'cheapest';

interface PlanFieldsProps {
  readonly wish: PlanWish;
  /** The names that were chosen elsewhere, if any were. */
  readonly chosen: readonly number[];
  readonly onChange: (wish: PlanWish) => void;
}

/** Which names, where to, over how many years, and what may be spent. */
export function PlanFields({ wish, chosen, onChange }: PlanFieldsProps) {
  const { meta, homeCurrency } = useLedger();
  const accounts = meta?.rules.accounts ?? [];
  const set = (change: Partial<PlanWish>) => onChange({ ...wish, ...change });
  const { which, targetId } = wish;
  const named = (value: string): PlannedNames => {
    if (value === 'chosen') return { kind: 'chosen', nameIds: chosen };
    return value === 'all' ? { kind: 'all' } : { kind: 'account', accountId: Number(value) };
  };
  return (
    <>
      <Fields>
        <Choice
          label="Names"
          value={which.kind === 'account' ? String(which.accountId) : which.kind}
          onChange={(value) => set({ which: named(value) })}
          options={[
            ...(chosen.length > 0
              ? [{ value: 'chosen', text: `${namesWords(chosen.length)} chosen in the ledger` }]
              : []),
            { value: 'all', text: 'every name' },
            ...accounts.map(({ id, label }) => ({ value: String(id), text: `names at ${label}` })),
          ]}
        />
        <Choice
          label="To"
          value={targetId === null ? CHEAPEST : String(targetId)}
          onChange={(value) =>
            set(value === CHEAPEST ? { targetId: null, evenIfDearer: false } : { targetId: Number(value) })
          }
          options={[
            { value: CHEAPEST, text: 'wherever it is cheapest' },
            ...accounts.map(({ id, label }) => ({ value: String(id), text: label })),
          ]}
        />
        <Choice
          label="Over"
          value={String(wish.years)}
          onChange={(years) => set({ years: Number(years) })}
          options={YEARS}
        />
        <AmountField
          label={`To spend on transfers, ${homeCurrency}`}
          currency={homeCurrency}
          hint="empty: as much as it takes"
          onChange={(_, read) => set({ budgetMinor: read?.minor ?? null })}
        />
      </Fields>
      {targetId !== null && (
        <Check isSelected={wish.evenIfDearer} onChange={(evenIfDearer) => set({ evenIfDearer })}>
          Also names that are no cheaper there
        </Check>
      )}
    </>
  );
}
