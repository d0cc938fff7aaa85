import { expect, test } from 'vitest';
import { convert, type Rate } from '@/core/money';
import type { Day } from '@/core/time';

const day = (text: string) => text as Day;

test('rates: the one in force on the day, or its inverse; none is told as none', () => {
  const rates: Rate[] = [
    { from: day('2026-01-01'), currency: 'EUR', into: 'USD', factor: 1.1 },
    { from: day('2026-06-01'), currency: 'EUR', into: 'USD', factor: 1.2 },
  ];
  const eur = { minor: 10_000, currency: 'EUR' };
  expect(convert(eur, 'USD', rates, day('2026-05-31'))).toEqual({ minor: 11_000, currency: 'USD' });
  expect(convert(eur, 'USD', rates, day('2026-06-01'))).toEqual({ minor: 12_000, currency: 'USD' });
  expect(convert({ minor: 12_000, currency: 'USD' }, 'EUR', rates, day('2026-07-01'))).toEqual(eur);
  expect(convert(eur, 'USD', rates, day('2025-12-31'))).toBeNull();
  expect(
    convert(eur, 'JPY', [{ from: day('2026-01-01'), currency: 'EUR', into: 'JPY', factor: 160 }], day('2026-02-01')),
  ).toEqual({ minor: 16_000, currency: 'JPY' });
  expect(convert(eur, 'EUR', [], day('2026-02-01'))).toEqual(eur);
});
