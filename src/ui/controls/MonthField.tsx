'use client';
import { isRefusal } from '@/core/refusal';
import { formatMonth, readMonth } from '@/core/time';
import { Field, type FieldProps } from './Field';

interface MonthFieldProps extends Omit<FieldProps, 'value' | 'defaultValue' | 'onChange' | 'placeholder'> {
  readonly value: string;
  /** `month` is the month as `YYYY-MM`, or what was typed where it is none. */
  readonly onChange: (text: string, month: string) => void;
}

/** A field for a month, as it stands on a card: typed in any usual shape, said back at once in the one style of the interface. */
export function MonthField({ value, onChange, problem, hint, ...props }: MonthFieldProps) {
  const read = value.trim() === '' ? null : readMonth(value);
  const wrong = isRefusal(read) ? read.message : null;
  return (
    <Field
      {...props}
      value={value}
      onChange={(text) => {
        const now = readMonth(text);
        onChange(text, isRefusal(now) ? text.trim() : now);
      }}
      placeholder="02/27"
      hint={read !== null && !isRefusal(read) && formatMonth(read) !== value.trim() ? formatMonth(read) : hint}
      problem={wrong ?? problem ?? null}
    />
  );
}
