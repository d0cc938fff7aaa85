import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  amount,
  formatAmount,
  formatDecimal,
  formatFigure,
  parseDecimal,
  plus,
  roundHalfAway,
  sumByCurrency,
} from './index';

describe('amounts are whole minor units', () => {
  test.each([
    ['11.38', 'USD', 1138],
    ['0.2', 'USD', 20],
    ['1200', 'JPY', 1200],
    ['1.5', 'JPY', null],
    ['1.005', 'USD', null],
    ['-3.50', 'EUR', -350],
    ['10.500', 'KWD', 10_500],
    ['1000000000000000000', 'USD', null],
    ['12', 'ZZZ', null],
    ['1,200', 'USD', null],
  ])('%s %s', (text, currency, minor) => {
    expect(parseDecimal(text, currency)?.minor ?? null).toBe(minor);
  });

  test('what is written is read back the same', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -1e11, max: 1e11 }),
        fc.constantFrom('USD', 'JPY', 'KWD', 'EUR'),
        (minor, currency) => {
          const one = amount(minor, currency);
          expect(parseDecimal(formatDecimal(one), currency)).toEqual(one);
        },
      ),
    );
  });

  test('a fraction of a minor unit is a bug', () => {
    expect(() => amount(1.5, 'USD')).toThrow();
  });
});

test.each([
  [0.5, 1],
  [-0.5, -1],
  [2.5, 3],
  [-2.5, -3],
  [1.4999, 1],
  [1138 * 0.07, 80],
  [1.005 * 100, 101],
])('%d is rounded half away from zero to %d', (value, rounded) => {
  expect(roundHalfAway(value)).toBe(rounded);
});

test('currencies never mix', () => {
  expect(() => plus(amount(1, 'USD'), amount(1, 'EUR'))).toThrow();
  expect(sumByCurrency([amount(5, 'USD'), amount(7, 'EUR'), amount(6, 'USD')])).toEqual([
    amount(7, 'EUR'),
    amount(11, 'USD'),
  ]);
});

test('amounts read as people write them', () => {
  expect(formatAmount(amount(123_456_789, 'USD'))).toBe('$1,234,567.89');
  expect(formatAmount(amount(-1138, 'USD'))).toBe('−$11.38');
  expect(formatAmount(amount(12_000, 'NOK'))).toBe('NOK 120.00');
  expect(formatFigure(amount(380_000, 'USD'), { whole: true })).toBe('3,800');
  expect(formatFigure(amount(1138, 'USD'), { whole: true })).toBe('11.38');
});
