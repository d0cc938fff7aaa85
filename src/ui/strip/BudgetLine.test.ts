import fc from 'fast-check';
import { expect, test } from 'vitest';
import { budgetParts } from './BudgetLine';

test.each([
  [16_000, 8000, { whole: 98, land: 49, over: 0 }],
  [16_000, 16_000, { whole: 98, land: 98, over: 0 }],
  [8000, 16_000, { whole: 49, land: 49, over: 49 }],
  [0, 0, { whole: 0, land: 0, over: 0 }],
])('%i to spend, %i spent', (budget, spent, wanted) => {
  expect(budgetParts(budget, spent, 100)).toEqual(wanted);
});

test('nothing is drawn outside the line, and beyond the budget only what is beyond it', () => {
  fc.assert(
    fc.property(fc.nat(10 ** 9), fc.nat(10 ** 9), (budget, spent) => {
      const { whole, land, over } = budgetParts(budget, spent, 500);
      expect(whole + over).toBeLessThanOrEqual(500);
      expect(land).toBeLessThanOrEqual(whole);
      if (spent <= budget) expect(over).toBe(0);
    }),
  );
});
