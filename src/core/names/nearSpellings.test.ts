import { expect, test } from 'vitest';
import { nearSpellings, parseDomainName } from './index';

test('near spellings: left out, doubled, swapped, beside it, twins, other endings, and never the name itself', () => {
  const near = nearSpellings('kelp-kiln.com');
  for (const one of [
    'kelpkiln.com',
    'klep-kiln.com',
    'kelp-kilm.com',
    'kkelp-kiln.com',
    'ke1p-kiln.com',
    'kelp-kiln.net',
  ])
    expect(near).toContain(one);
  expect(near).not.toContain('kelp-kiln.com');
  expect(new Set(near).size).toBe(near.length);
  for (const one of near) expect(parseDomainName(one)).toMatchObject({ ascii: one });
});

test('names in other scripts only vary by their ending', () => {
  expect(nearSpellings('xn--mwenspeicher-4ib.de')).toEqual([
    'xn--mwenspeicher-4ib.com',
    'xn--mwenspeicher-4ib.net',
    'xn--mwenspeicher-4ib.org',
  ]);
});

test('a hyphen more is near, and none ever stands in third and fourth place', () => {
  const near = nearSpellings('kelpkiln.com');
  expect(near).toContain('kelp-kiln.com');
  expect(near).toContain('ke-lpkiln.com');
  for (const ascii of ['ab-kelp.com', 'a-b-kelp.com', 'kelpkiln.com', 'ke-lp.com'])
    for (const one of nearSpellings(ascii)) {
      expect(one.slice(2, 4)).not.toBe('--');
      expect(parseDomainName(one)).toMatchObject({ ascii: one });
    }
});
