import { expect, test } from 'vitest';
import { OPEN_RUNS, UNSETTLED } from '@/core/orders';
import { oneOf } from './oneOf';

test('states of the core stand in SQL as they are called there', () => {
  expect(oneOf(OPEN_RUNS)).toBe("in ('planned', 'requested')");
  expect(oneOf(UNSETTLED)).toContain("'report refused'");
});

test.each([["it's"], ['a"b'], ['a, b'], ['A'], ['']])(
  '%j is no state: what is not a constant is a parameter',
  (state) => {
    expect(() => oneOf([state])).toThrow(/not a state/);
  },
);
test('no state at all is a mistake: it would match nothing in silence', () => expect(() => oneOf([])).toThrow());
