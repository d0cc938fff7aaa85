'use client';
import { type ComponentProps, useState } from 'react';
import styled from 'styled-components';
import { isRefusal } from '@/core/refusal';
import { readTyped, typedAmount } from '@/ui/text/figures';

const Box = styled.input`
  width: 100%;
  min-height: 28px;
  padding: 2px 6px;
  border: 1px solid var(--rule);
  border-radius: 2px;
  background: var(--sheet);
  text-align: right;
  &[aria-invalid='true'] { border-color: var(--caution); }
  &:disabled { border-color: transparent; background: none; }
`;

interface PriceInputProps extends Omit<ComponentProps<typeof Box>, 'value' | 'onChange'> {
  readonly minor: number | null;
  readonly unread: string | undefined;
  readonly currency: string;
  readonly onPrice: (minor: number | null, unread: string | null) => void;
}

/** A price to be typed in a cell: read as it is typed, and left as it was typed until the cell is left. */
export function PriceInput({ minor, unread, currency, onPrice, ...rest }: PriceInputProps) {
  const [typing, setTyping] = useState<string | null>(null);
  const shown = typing ?? unread ?? (minor === null ? '' : typedAmount({ minor, currency }));
  const type = (text: string) => {
    setTyping(text);
    const read = text.trim() === '' ? null : readTyped(text, currency);
    if (isRefusal(read)) onPrice(null, text);
    else onPrice(read?.minor ?? null, null);
  };
  return (
    <Box
      {...rest}
      inputMode="decimal"
      value={shown}
      onChange={(event) => type(event.target.value)}
      onBlur={() => setTyping(null)}
    />
  );
}
