'use client';
import { useState } from 'react';
import { type Amount, formatDecimal } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import { readTyped, spellAmount, typedAmount } from '../text/figures';
import { Field, type FieldProps } from './Field';

interface AmountFieldProps extends Omit<FieldProps, 'value' | 'defaultValue' | 'onChange' | 'inputMode'> {
  readonly currency: string;
  /** What it holds at first. */
  readonly amount?: Amount | null;
  /** What is typed, where the caller keeps it. */
  readonly value?: string;
  /** `read` is `null` for nothing and for what is no amount. */
  readonly onChange?: (text: string, read: Amount | null) => void;
  /** Below nothing is allowed. */
  readonly negative?: boolean;
}

/** Stands in a form for a text that is no amount. */
const UNREAD = 'unread';

/**
 * A field for an amount of one currency: says at once, in words, what was understood, and refuses beside itself what was not. In a
 * form its `name` holds minor units, read by `minorIn`.
 */
export function AmountField({
  currency,
  amount,
  value,
  onChange,
  negative,
  name,
  hint,
  problem,
  ...props
}: AmountFieldProps) {
  const [first] = useState(() => (amount ? typedAmount(amount) : ''));
  const [kept, setKept] = useState(first);
  const text = value ?? kept;
  const isEmpty = text.trim() === '';
  const read = isEmpty ? null : readTyped(text, currency, negative);
  const understood = read !== null && !isRefusal(read) ? read : null;
  const unread = isRefusal(read) ? read.message : null;
  return (
    <>
      <Field
        {...props}
        name={name}
        inputMode="decimal"
        value={text}
        onChange={(next) => {
          setKept(next);
          const one = next.trim() === '' ? null : readTyped(next, currency, negative);
          onChange?.(next, one === null || isRefusal(one) ? null : one);
        }}
        hint={
          understood && text !== first ? (
            <>
              {hint}
              {hint && ' · '}
              read as {spellAmount(understood)}
            </>
          ) : (
            hint
          )
        }
        problem={unread ?? problem ?? null}
      />
      {name && <input type="hidden" name={`${name}.minor`} value={isEmpty ? '' : (understood?.minor ?? UNREAD)} />}
    </>
  );
}

/** The minor units that an `AmountField` holds in a form; `undefined` for nothing, `NaN` for what is no amount. */
export function minorIn(form: FormData, name: string): number | undefined {
  const text = String(form.get(`${name}.minor`) ?? '');
  return text === '' ? undefined : Number(text);
}

/** The same as a plain decimal for a request: `1200.5`; empty for nothing, and never the typed text, which another reader may take for another amount. */
export function decimalIn(form: FormData, name: string, currency: string): string {
  const minor = minorIn(form, name);
  if (minor === undefined) return '';
  return Number.isNaN(minor) ? UNREAD : formatDecimal({ minor, currency });
}
