import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { isRefusal } from '../refusal';
import { candidatesFrom, MOST_CANDIDATES } from './candidates';
import { readPattern } from './patterns';

const labels = (ideas: string, patterns: readonly string[]) => {
  const found = candidatesFrom(ideas, patterns);
  return isRefusal(found) ? found.code : found.candidates.map(({ unicode }) => unicode);
};

describe('patterns put words together', () => {
  test.each([
    [['{a}'], ['tern', 'loft']],
    [['{a}{b}'], ['ternloft', 'lofttern']],
    [['{a}-{b}'], ['tern-loft', 'loft-tern']],
    [['the{a}'], ['thetern', 'theloft']],
    [['{a:1}{b}'], ['tloft', 'ltern']],
    [['{b}{a}'], ['lofttern', 'ternloft']],
    [['{a}{a}'], ['terntern', 'loftloft']],
    [
      ['{a}', '{a}'],
      ['tern', 'loft'],
    ],
    [['{A}kiln'], ['ternkiln', 'loftkiln']],
    [['{a}{b}{c}'], []],
  ])('%j', (patterns, expected) => {
    expect(labels('tern, loft', patterns)).toEqual(expected);
  });

  test.each(['', 'loft', '{', '{a', 'a}', '{b}', '{a}{c}', '{d}', '{a:}', '{a}{', '{{a}}', 'x'.repeat(70)])(
    '%j is none',
    (written) => {
      expect(isRefusal(readPattern(written))).toBe(true);
    },
  );
});

describe('ideas are words and whole names, however they are separated', () => {
  test.each([
    ['Tern; LOFT\n\ttern', ['tern', 'loft']],
    ['“tern”, ‘loft’', ['tern', 'loft']],
    ['kelpkiln.com tern', ['kelpkiln', 'tern']],
    ['möwe', ['möwe']],
    ['xn--mwe-sna', ['möwe']],
  ])('%j', (ideas, expected) => {
    expect(labels(ideas, ['{a}'])).toEqual(expected);
  });

  test('a whole name brings its ending, and is not put together with words', () => {
    expect(candidatesFrom('kelpkiln.co.uk tern loft', ['{a}{b}'])).toMatchObject({
      candidates: [
        { label: 'kelpkiln', pieces: ['kelpkiln'] },
        { label: 'ternloft', pieces: ['tern', 'loft'] },
        { label: 'lofttern' },
      ],
      endings: ['co.uk'],
    });
  });

  test('nothing typed is refused, and so is more than anyone asks for', () => {
    expect(labels(' , ', ['{a}'])).toBe('no-ideas');
    const words = Array.from({ length: 80 }, (_, i) => `word${i}`).join(' ');
    expect(labels(words, ['{a}{b}'])).toBe('too-many-candidates');
    const many = Array.from({ length: MOST_CANDIDATES }, (_, i) => `w${i}`).join(' ');
    expect(labels(many, ['{a}'])).toHaveLength(MOST_CANDIDATES);
  });
});

test.each([
  ['i♥kelp', '♥'],
  ['kelp_kiln', 'cannot have'],
  ['-kelp', 'hyphen'],
  [`${'k'.repeat(64)}`, '63'],
])('%s is refused with why, and the others go on', (word, why) => {
  const found = candidatesFrom(`${word} tern`, ['{a}']);
  expect(found).toMatchObject({
    candidates: [{ label: 'tern' }],
    refused: [{ label: word, why: expect.stringContaining(why) }],
  });
});

test('every candidate is a label by RFC 5890, each once, whatever is typed', () => {
  fc.assert(
    fc.property(fc.array(fc.string({ maxLength: 12 }), { maxLength: 6 }), (words) => {
      const found = candidatesFrom(words.join(' '), ['{a}', '{a}{b}', '{a}-{b}']);
      if (isRefusal(found)) return;
      const all = found.candidates.map(({ label }) => label);
      expect(new Set(all).size).toBe(all.length);
      for (const label of all) expect(label).toMatch(/^[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?$/);
    }),
  );
});
