import { describe, expect, test } from 'vitest';
import { priceByRule, roundPrice } from '@/core/selling';

describe('prices by rule', () => {
  test.each([
    [123_456, 'whole', 123_500],
    [123_449, 'whole', 123_400],
    [30, 'whole', 100],
    [123_456, '50s', 125_000],
    [1000, '50s', 5000],
    [123_456, '99s', 119_900],
    [125_000, '99s', 129_900],
    [1000, '99s', 9900],
  ] as const)('%d rounded to %s', (minor, rounding, expected) => {
    expect(roundPrice(minor, rounding, 100)).toBe(expected);
  });

  test('a factor on what is known; nothing on what is not', () => {
    expect(priceByRule(5000, { base: 'cost', factor: 20, rounding: '99s' }, 100)).toBe(99_900);
    expect(priceByRule(null, { base: 'comparable', factor: 1, rounding: 'whole' }, 100)).toBeNull();
    expect(priceByRule(0, { base: 'cost', factor: 20, rounding: 'whole' }, 100)).toBeNull();
  });
});
