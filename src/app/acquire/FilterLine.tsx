'use client';
import styled from 'styled-components';
import { type CandidateQuery, ROW_FILTERS } from '@/core/acquiring';
import { Choice, Field } from '@/ui/controls/Field';
import { typedMinor } from '@/ui/text/figures';
import { yearsWords } from '@/ui/text/words';
import { useLedger } from '../frame/LedgerProvider';
import { FILTER_WORDS } from './acquireWords';

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: end;
  padding: 8px 26px;
  border-bottom: 1px solid var(--rule);
  & > * { flex: 1 1 120px; max-width: 210px; }
  @media (max-width: 640px) { padding: 8px 14px; }
`;

const SORTS = [
  { value: 'as made', text: 'as made' },
  { value: 'label', text: 'by name' },
  { value: 'length', text: 'by length' },
  { value: 'price', text: 'by price' },
] as const;

interface FilterLineProps {
  readonly query: CandidateQuery;
  readonly heldYears: number;
  readonly onChange: (change: Partial<CandidateQuery>) => void;
}

/** Which candidates are shown, and in what order. */
export function FilterLine({ query, heldYears, onChange }: FilterLineProps) {
  const { homeCurrency } = useLedger();
  const order = typeof query.sort === 'number' ? 'price' : query.sort;
  return (
    <Line>
      <Field label="Find" value={query.text} onChange={(text) => onChange({ text })} placeholder="any part" />
      <Choice
        label="Show"
        value={query.filter}
        onChange={(filter) => onChange({ filter })}
        options={ROW_FILTERS.map((value) => ({ value, text: FILTER_WORDS[value] }))}
      />
      <Field
        label={`At most over ${yearsWords(heldYears)}`}
        inputMode="decimal"
        onChange={(text) => {
          const minor = typedMinor(text, homeCurrency);
          onChange({ mostMinor: minor === null || Number.isNaN(minor) ? null : minor });
        }}
      />
      <Field
        label="Letters at most"
        inputMode="numeric"
        onChange={(text) => onChange({ mostLetters: /^\d{1,2}$/.test(text.trim()) ? Number(text) : null })}
      />
      <Choice label="Order" value={order} onChange={(sort) => onChange({ sort, descending: false })} options={SORTS} />
    </Line>
  );
}
