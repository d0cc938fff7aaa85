import { expect, test } from 'vitest';
import { farOff } from './farOff';

test.each([
  [1_000_000, 50_000, { likeMinor: 50_000, times: 20, isMore: true }],
  [999_999, 50_000, null],
  [2500, 50_000, { likeMinor: 50_000, times: 20, isMore: false }],
  [2501, 50_000, null],
  [50_000, 50_000, null],
])('%i beside %i', (minor, like, wanted) => {
  expect(farOff(minor, like)).toEqual(wanted);
});

test('without a price, or without anything to hold it against, nothing is far off', () => {
  expect(farOff(null, 50_000)).toBeNull();
  expect(farOff(1_000_000, null)).toBeNull();
  expect(farOff(0, 50_000)).toBeNull();
  expect(farOff(50_000, 0)).toBeNull();
});
