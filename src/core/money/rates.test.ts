import { expect, test } from 'vitest';
import { convert, type Rate, rateOn } from '@/core/money';
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

test('rates over a third currency, as a central bank publishes them against its own', () => {
  const rates: Rate[] = [
    { from: day('2026-11-20'), currency: 'EUR', into: 'USD', factor: 1.0865 },
    { from: day('2026-11-20'), currency: 'EUR', into: 'GBP', factor: 0.8342 },
    { from: day('2026-11-20'), currency: 'EUR', into: 'JPY', factor: 161.25 },
  ];
  // 100.00 / 0.8342 × 1.0865 = 130.244…; 100.00 / 1.0865 × 161.25 = 14,841.2…: by hand.
  expect(convert({ minor: 10_000, currency: 'GBP' }, 'USD', rates, day('2026-11-24'))?.minor).toBe(13_024);
  expect(convert({ minor: 10_000, currency: 'USD' }, 'JPY', rates, day('2026-11-24'))?.minor).toBe(14_841);
  expect(convert({ minor: 10_000, currency: 'GBP' }, 'USD', rates, day('2026-11-19'))).toBeNull();
  expect(convert({ minor: 10_000, currency: 'GBP' }, 'SEK', rates, day('2026-11-24'))).toBeNull();
  // The latest counts; on one day the rate of the pair itself.
  const old: Rate = { from: day('2026-01-01'), currency: 'GBP', into: 'USD', factor: 1.25 };
  expect(convert({ minor: 10_000, currency: 'GBP' }, 'USD', [...rates, old], day('2026-11-24'))?.minor).toBe(13_024);
  expect(convert({ minor: 10_000, currency: 'GBP' }, 'USD', [...rates, old], day('2026-11-19'))?.minor).toBe(12_500);
  const own: Rate = { ...old, from: day('2026-11-20') };
  expect(convert({ minor: 10_000, currency: 'GBP' }, 'USD', [...rates, own], day('2026-11-24'))?.minor).toBe(12_500);
  const overFrancs: Rate[] = [
    { from: day('2026-02-01'), currency: 'CHF', into: 'USD', factor: 2 },
    { from: day('2026-11-21'), currency: 'CHF', into: 'GBP', factor: 1 },
  ];
  expect(convert({ minor: 10_000, currency: 'GBP' }, 'USD', [...overFrancs, ...rates], day('2026-11-24'))?.minor).toBe(
    13_024,
  );
  // A rate over a third is as old as the older of its two.
  const older: Rate = { from: day('2026-11-18'), currency: 'EUR', into: 'CHF', factor: 0.94 };
  expect(rateOn('CHF', 'USD', [...rates, older], day('2026-11-24'))?.from).toBe('2026-11-18');
  expect(rateOn('EUR', 'USD', rates, day('2026-11-24'))).toMatchObject({ factor: 1.0865, from: '2026-11-20' });
});
