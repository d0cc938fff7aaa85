import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { isIdnaLetter, letterNotInIdna2008, parseDomainName, skeletonOf } from '@/core/names';
import { isRefusal } from '@/core/refusal';

/** Source: RFC 5892, as the Python package idna 3.4 has worked it out for Unicode 15.0 (its table is in the file). */
const table = new Map(
  readFileSync(new URL('vectors/idna2008.txt', import.meta.url), 'utf8')
    .split('\n')
    .filter((line) => !line.startsWith('#') && line !== '')
    .map((line) => {
      const [kind = '', ...ranges] = line.split(' ');
      const points = ranges.map((range) => {
        const [first = '', last = first] = range.split('-');
        return [Number.parseInt(first, 16), Number.parseInt(last, 16)] as const;
      });
      return [kind, points] as const;
    }),
);
const points = (kind: string) =>
  (table.get(kind) ?? []).flatMap(([first, last]) => Array.from({ length: last - first + 1 }, (_, i) => first + i));

test('every code point that Unicode 15.0 has is valid here exactly where it is valid there', () => {
  const valid = new Set(['PVALID', 'CONTEXTJ', 'CONTEXTO'].flatMap(points));
  const assigned = points('ASSIGNED').filter((point) => point < 0xd800 || point > 0xdfff);
  expect(assigned.length).toBeGreaterThan(280_000);
  const differs = assigned.filter((point) => isIdnaLetter(String.fromCodePoint(point)) !== valid.has(point));
  // Theirs was made with an older Unicode's NFKC: what that changes is unstable, and so disallowed (RFC 5892 section 2.2).
  expect(
    differs.filter((point) => String.fromCodePoint(point).normalize('NFKC') === String.fromCodePoint(point)),
  ).toEqual([]);
  expect(differs.length).toBeLessThan(130);
});

/** Source: RFC 5894 section 7.1.3 (symbols), RFC 5892 appendix A.3 (middle dot), RFC 5891 section 4.2. */
describe('what UTS #46 alone lets pass is refused', () => {
  test.each([
    ['i♥kelp', '♥'],
    ['kelp☃', '☃'],
    ['kelpkiln', null],
    ['möwenkai', null],
    ['straße', null],
    ['日本語', null],
  ])('%s', (label, letter) => {
    expect(letterNotInIdna2008(label)).toBe(letter);
  });

  test('a stray middle dot is refused where the name is read', () => {
    expect(isRefusal(parseDomainName('kelp·kiln.com'))).toBe(true);
    expect(isRefusal(parseDomainName('paral·lel.com'))).toBe(false);
  });
});

/** Source: UTS #39 section 4, confusables.txt; 0/o and vv/w are our own (its prototypes are O and none). */
describe('labels that look alike have one skeleton', () => {
  test.each([
    ['copper', 'сорреr'],
    ['modern', 'modem'],
    ['kelp0', 'kelpo'],
    ['vvrack', 'wrack'],
    ['ki1n', 'kiln'],
    ['ᏏaᎥ', 'bai'],
    ['möwe', 'mowe'],
  ])('%s and %s', (one, other) => {
    expect(skeletonOf(one.normalize('NFC'))).toBe(skeletonOf(other));
  });

  test.each([
    ['kelp', 'help'],
    ['kiln', 'killn'],
    ['wrack', 'wreck'],
  ])('%s and %s do not', (one, other) => {
    expect(skeletonOf(one)).not.toBe(skeletonOf(other));
  });
});
