import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { nearSpellings } from '../names';
import { besideTyped, bySkeleton, perhapsMeant, slipIn, spellingOf } from './spelling';

const kinds = (label: string, pieces = [label]) => spellingOf(label, pieces).notes.map(({ kind }) => kind);

describe('what a reader or a listener may get wrong', () => {
  test.each([
    ['ternloft', ['tern', 'loft'], ['misread', 'sounds like']],
    ['lofttern', ['loft', 'tern'], ['letters meet', 'misread', 'sounds like']],
    ['kelp-kiln', ['kelp', '-', 'kiln'], ['hyphen']],
    ['kelp4', ['kelp4'], ['digits']],
    ['kelp10', ['kelp10'], ['misread', 'digits']],
    ['kelpkiln', ['kelp', 'kiln'], []],
    ['möwenkai', ['möwenkai'], ['other letters']],
    ['сорр', ['сорр'], ['other letters']],
  ] as const)('%s', (label, pieces, expected) => {
    expect(kinds(label, [...pieces])).toEqual(expected);
  });

  test('a name that looks like one that is known says which', () => {
    const known = bySkeleton(['modern.com', 'kelpkiln.com']);
    expect(spellingOf('modem', ['modem'], known).notes.at(-1)?.text).toBe('looks like modern.com');
    // Its own label under another ending is none.
    expect(spellingOf('kelpkiln', ['kelpkiln'], known).notes).toEqual([]);
  });
});

/** Source: the spelling alphabet of the ITU Radio Regulations, appendix 14. */
test('it is spelt out letter by letter, and aloud', () => {
  expect(spellingOf('kiln-7', ['kiln', '-7'])).toMatchObject({
    letters: ['k', 'i', 'l', 'n', '-', '7'],
    aloud: 'kilo india lima november hyphen seven',
  });
  expect(spellingOf('möwe', ['möwe']).aloud).toBeNull();
});

describe('a slip of the keys is found by what one has', () => {
  const own = ['harbourloft', 'harbourlamp', 'oldharbor', 'kelpkiln', 'terncairn'];
  test.each([
    ['habour', 'harbour'],
    ['harbuor', 'harbour'],
    ['harrbour', 'harbour'],
    ['harbpur', 'harbour'],
    ['harbour', null],
    ['wrack', null],
    ['kelq', null],
    ['möwenkai', null],
  ])('%s', (word, meant) => {
    expect(perhapsMeant(word, own)).toBe(meant);
  });
});

test.each([
  ['habourloft', { piece: 'habour', meant: 'harbour' }],
  ['loftharbuor', { piece: 'harbuor', meant: 'harbour' }],
  ['wracckloft', { piece: 'wracck', meant: 'wrack' }],
  ['harbourloft', null],
  ['terncairn', null],
  ['lofttern', null],
])('%s is held against the words of one’s ideas', (label, slip) => {
  expect(slipIn(label, ['harbour', 'wrack', 'tern', 'loft'])).toEqual(slip);
});

/** Source: the search itself, without what spares it words: every slip of every word, looked for in the label. */
test('no slip is overlooked, wherever in a name it stands', () => {
  const letters = fc.string({ unit: fc.constantFrom(...'abclmnorvwil'), minLength: 5, maxLength: 12 });
  fc.assert(
    fc.property(letters, letters, fc.nat(), (word, other, which) => {
      const slips = nearSpellings(`${word}.x`)
        .filter((name) => name.endsWith('.x') && !name.includes('-'))
        .map((name) => name.slice(0, -2))
        .filter((slip) => /^[a-z]{5,}$/.test(slip) && !word.includes(slip));
      const slip = slips[which % slips.length];
      for (const label of [`${slip}${other}`, `${other}${slip}`, `${slip}`])
        if (slip !== undefined && !label.includes(word)) expect(slipIn(label, [word])).toMatchObject({ meant: word });
    }),
    { numRuns: 300 },
  );
});

/** Every word was once spelt out anew for every name: 630 ms a name. */
test('a name is held against five thousand words at once', () => {
  const letter = (i: number) => String.fromCharCode(97 + (i % 26));
  const words = Array.from({ length: 5000 }, (_, i) => `harbour${letter(i)}${letter(i / 26)}${letter(i / 676)}word`);
  const begun = performance.now();
  for (let i = 0; i < 20; i += 1) expect(slipIn(`ternbeaconloft${letter(i)}`, words)).toBeNull();
  expect((performance.now() - begun) / 20).toBeLessThan(60);
  expect(slipIn('habourternaaword', ['tern', 'harbour'])).toEqual({ piece: 'habour', meant: 'harbour' });
});

describe('a name beside what was typed', () => {
  test.each([
    ['ternloft', 'ternloft', ['both:ternloft']],
    ['ternloft', 'tern-loft', ['both:tern', 'typed:-', 'both:loft']],
    ['habour', 'harbour', ['both:ha', 'typed:r', 'both:bour']],
    ['kelps', 'kelp', ['both:kelp', 'name:s']],
    ['', 'kelp', ['typed:kelp']],
  ])('%s, typed %s', (name, typed, expected) => {
    const pieces = besideTyped(name, typed);
    const shown = pieces.map(({ text, where }) => `${where}:${text}`);
    expect(
      pieces
        .filter(({ where }) => where !== 'typed')
        .map(({ text }) => text)
        .join(''),
    ).toBe(name);
    expect(
      pieces
        .filter(({ where }) => where !== 'name')
        .map(({ text }) => text)
        .join(''),
    ).toBe(typed);
    expect(shown).toEqual(expected);
  });
});
