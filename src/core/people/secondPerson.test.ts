import fc from 'fast-check';
import { expect, test } from 'vitest';
import { weigh } from '.';

const usual = { spentMinor: 9_000, limitMinor: 10_000, asksSecond: true, others: 1 };

test.each([
  ['within the limit, to the cent', { isGrave: false, spendsMinor: 1_000 }, {}, 'go on'],
  ['a cent above it', { isGrave: false, spendsMinor: 1_001 }, {}, 'ask'],
  ['a cent above it, with nobody to ask', { isGrave: false, spendsMinor: 1_001 }, { others: 0 }, 'refuse'],
  ['a cent above it, where nobody is asked', { isGrave: false, spendsMinor: 1_001 }, { asksSecond: false }, 'refuse'],
  ['above nothing, without a limit', { isGrave: false, spendsMinor: 1e9 }, { limitMinor: null }, 'go on'],
  ['an unknown cost under a limit', { isGrave: false, spendsMinor: null }, {}, 'ask'],
  ['an unknown cost without one', { isGrave: false, spendsMinor: null }, { limitMinor: null }, 'go on'],
  ['a restore that costs little', { isGrave: true, spendsMinor: 1 }, { limitMinor: null }, 'ask'],
  ['a restore in an office of one', { isGrave: true, spendsMinor: 1 }, { limitMinor: null, others: 0 }, 'go on'],
  ['a restore above the limit in an office of one', { isGrave: true, spendsMinor: 2_000 }, { others: 0 }, 'refuse'],
  ['a sale once the limit is used up', { isGrave: false, spendsMinor: 0 }, { spentMinor: 99_000 }, 'go on'],
  ['a limit of nothing', { isGrave: false, spendsMinor: 1 }, { spentMinor: 0, limitMinor: 0 }, 'ask'],
] as const)('%s: %o', (_, weight, more, outcome) => {
  expect(weigh(weight, { ...usual, ...more })).toBe(outcome);
});

test('nobody alone ever spends more than the limit', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ isGrave: fc.boolean(), spendsMinor: fc.option(fc.nat(5_000)) }), { maxLength: 30 }),
      fc.nat(20_000),
      fc.boolean(),
      fc.nat(2),
      (weights, limitMinor, asksSecond, others) => {
        let spentMinor = 0;
        for (const weight of weights)
          if (weigh(weight, { spentMinor, limitMinor, asksSecond, others }) === 'go on')
            spentMinor += weight.spendsMinor ?? Number.POSITIVE_INFINITY;
        expect(spentMinor).toBeLessThanOrEqual(limitMinor);
      },
    ),
  );
});
