'use client';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { Dialog, DialogTrigger, Popover } from 'react-aria-components';
import styled from 'styled-components';
import { AmountField } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { formatFigure } from '@/ui/text/figures';

/** A filter in plain words; set ones can be taken out. */
export const Chip = styled.span`
  display: inline-flex;
  align-items: stretch;
  border: 1px solid var(--rule);
  border-radius: 3px;
  &[data-set='true'] { border-color: var(--bearing); }
  & > button { border: 0; background: none; min-height: 26px; padding: 2px 9px; }
  & > button + button { padding: 2px 6px; color: var(--ink-soft); }
`;

/** What opens under a chip. */
export const Sheet = styled(Popover)`
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--sheet);
  box-shadow: 0 4px 16px rgb(10 25 35 / 18%);
  & > section { padding: 12px 14px; max-height: 60vh; overflow: auto; display: flex; flex-direction: column; gap: 6px; outline: none; min-width: 180px; }
`;

/** A chip that opens its choices. */
export function FilterChip({
  label,
  text,
  set,
  onClear,
  children,
}: {
  label: string;
  text: string;
  set: boolean;
  onClear: () => void;
  children: ReactNode;
}) {
  return (
    <Chip data-set={set}>
      <DialogTrigger>
        <Button>{text}</Button>
        <Sheet>
          <Dialog aria-label={label}>{children}</Dialog>
        </Sheet>
      </DialogTrigger>
      {set && (
        <Button aria-label={`Any ${label}`} onPress={onClear}>
          <X size={12} aria-hidden />
        </Button>
      )}
    </Chip>
  );
}

/** A chip for a choice of several values. */
export function ChecksChip<T extends string | number>(props: {
  label: string;
  values: readonly T[];
  of: readonly T[];
  word: (value: T) => string;
  onChange: (values: T[]) => void;
}) {
  const { label, values, of, word, onChange } = props;
  const text =
    values.length === 0
      ? `any ${label}`
      : values.length <= 2
        ? values.map(word).join(' or ')
        : `${values.length} of ${label}`;
  return (
    <FilterChip label={label} text={text} set={values.length > 0} onClear={() => onChange([])}>
      {of.map((value) => (
        <Check
          key={value}
          isSelected={values.includes(value)}
          onChange={(on) => onChange(on ? [...values, value] : values.filter((other) => other !== value))}
        >
          {word(value)}
        </Check>
      ))}
      {of.length === 0 && <span className="soft">None yet.</span>}
    </FilterChip>
  );
}

/** A chip for an amount of the home currency, from and to. */
export function RangeChip({
  label,
  from,
  to,
  currency,
  onChange,
}: {
  label: string;
  from: number | null;
  to: number | null;
  currency: string;
  onChange: (from: number | null, to: number | null) => void;
}) {
  const word = (minor: number) => formatFigure({ minor, currency }, true);
  const set = from !== null || to !== null;
  return (
    <FilterChip
      label={label}
      text={
        set
          ? `${label} ${from === null ? '' : `from ${word(from)} `}${to === null ? '' : `to ${word(to)}`}`
          : `any ${label}`
      }
      set={set}
      onClear={() => onChange(null, null)}
    >
      <AmountField
        label={`From, ${currency}`}
        currency={currency}
        amount={from === null ? null : { minor: from, currency }}
        onChange={(_, read) => onChange(read?.minor ?? null, to)}
      />
      <AmountField
        label={`To, ${currency}`}
        currency={currency}
        amount={to === null ? null : { minor: to, currency }}
        onChange={(_, read) => onChange(from, read?.minor ?? null)}
      />
    </FilterChip>
  );
}
