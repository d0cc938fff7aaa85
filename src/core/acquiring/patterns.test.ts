import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { isRefusal } from '../refusal';
import { labelsOf, type Pattern, readPattern, readPatterns, USUAL_PATTERNS } from './patterns';

const read = (written: string): Pattern => {
  const pattern = readPattern(written);
  if (isRefusal(pattern)) throw new Error(pattern.message);
  return pattern;
};
const made = (written: string, words: readonly string[]) => [...labelsOf(read(written), words)];
/** n words in k places, no word twice: n! / (n-k)!. */
const arrangements = (n: number, k: number): number => (k === 0 ? 1 : n * arrangements(n - 1, k - 1));

test('those one may begin with are patterns, and need one or two words', () => {
  expect(USUAL_PATTERNS.map((written) => read(written).slots)).toEqual([1, 2, 2, 1, 2]);
});

describe('how a pattern is read', () => {
  test.each([
    ['{a}', 1],
    ['{a}{a}', 1],
    [' {B}-{A} ', 2],
    ['{c}{b}{a}', 3],
    ['{a:3}works', 1],
    ['möwe{a}', 1],
  ])('%j needs %i different words', (written, slots) => {
    expect(read(written).slots).toBe(slots);
  });

  test('the first that is none is told with itself, and how to write one', () => {
    const refusal = readPatterns(['{a}', '{a}{c}', '{']);
    expect(refusal).toMatchObject({ code: 'pattern-unreadable', field: 'patterns' });
    expect(isRefusal(refusal) && refusal.message).toContain('“{a}{c}”');
    expect(isRefusal(refusal) && refusal.message).toContain('{a}-{b}');
  });
});

describe('what a pattern makes of words', () => {
  test.each([
    ['{a:2}{b}', ['tern', 'loft'], ['teloft', 'lotern']],
    ['{a:9}', ['tern'], ['tern']],
    ['{a}{a:1}', ['tern'], ['ternt']],
    ['{a:1}{b}', ['öre', 'kai'], ['ökai', 'köre']],
    ['{a:1}', ['𐓪tern'], ['𐓪']],
    ['{a}{b}', ['tern'], []],
    ['{a}', [], []],
  ])('%s of %j', (written, words, labels) => {
    expect(made(written, words).map(({ label }) => label)).toEqual(labels);
  });

  test('the pieces are told, since what meets where they meet is misread', () => {
    expect(made('{a}-{b}kai', ['tern', 'loft'])[0]).toEqual({
      label: 'tern-loftkai',
      pieces: ['tern', '-', 'loft', 'kai'],
    });
  });

  /** Source: arrangements without repetition, n! / (n-k)!. */
  test('every arrangement once, no word twice in one, in the order of the words', () => {
    const words = fc.uniqueArray(fc.stringMatching(/^[a-z]{2,6}$/), { maxLength: 7 });
    fc.assert(
      fc.property(words, fc.constantFrom('{a}.', '{a}.{b}.', '{a}.{b}.{c}.'), (chosen, written) => {
        const labels = made(written, chosen).map(({ label }) => label);
        expect(labels).toHaveLength(arrangements(chosen.length, read(written).slots));
        expect(new Set(labels).size).toBe(labels.length);
        for (const label of labels) {
          const used = label.split('.').filter((word) => word !== '');
          expect(new Set(used).size).toBe(used.length);
        }
        const places = labels.map((label) => chosen.indexOf(label.split('.')[0] as string));
        expect(places).toEqual(places.toSorted((one, other) => one - other));
      }),
    );
  });

  test('they are made one by one: a thousand words in three places stop as soon as enough are made', () => {
    const words = Array.from({ length: 1000 }, (_, i) => `word${i}`);
    let count = 0;
    for (const { label } of labelsOf(read('{a}{b}{c}'), words)) {
      count += 1;
      if (count === 5000) {
        expect(label).toMatch(/^word0/);
        break;
      }
    }
    expect(count).toBe(5000);
  });
});
