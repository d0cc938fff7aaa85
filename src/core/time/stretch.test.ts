import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Instant } from './instant';
import { stretchBetween } from './stretch';

const at = (ms: number) => ms as Instant;
const whole = { from: at(0), until: at(1000) };

test('a mark belongs to what follows it', () => {
  expect(stretchBetween(whole, [at(10), null, at(20)], at(15))).toEqual({ from: 10, until: 20 });
  expect(stretchBetween(whole, [at(10), at(20)], at(10))).toEqual({ from: 10, until: 20 });
  expect(stretchBetween(whole, [at(10), at(20)], at(20))).toEqual({ from: 20, until: 1000 });
  expect(stretchBetween(whole, [], at(15))).toEqual(whole);
});

test('whatever the marks: the instant is within, and no mark but the first instant is', () => {
  const instants = fc.integer({ min: 1, max: 999 }).map(at);
  fc.assert(
    fc.property(fc.array(fc.option(instants)), instants, (marks, now) => {
      const { from, until } = stretchBetween(whole, marks, now);
      expect(from <= now && now < until).toBe(true);
      expect(marks.some((mark) => mark !== null && mark > from && mark < until)).toBe(false);
    }),
  );
});
