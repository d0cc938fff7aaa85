import { expect, test } from 'vitest';
import { GREATEST_SEED, nextSeed, readSeed } from './streams';

test.each([
  ['0', 0],
  ['7', 7],
  [' 1,048 576 ', 1_048_576],
  [String(GREATEST_SEED), GREATEST_SEED],
  [String(GREATEST_SEED + 1), null],
  ['99999999999', null],
  ['-1', null],
  ['1.5', null],
  ['1e3', null],
  ['seven', null],
  ['', null],
])('%j is the seed %j', (text, seed) => {
  expect(readSeed(text)).toBe(seed);
});

test('every seed that is drawn can be typed again, and none comes back soon', () => {
  const drawn = new Set<number>();
  for (let seed = 1, i = 0; i < 10_000; i += 1, seed = nextSeed(seed)) {
    expect(readSeed(String(seed))).toBe(seed);
    drawn.add(seed);
  }
  expect(drawn.size).toBe(10_000);
});
