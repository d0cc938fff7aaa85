import { expect, test } from 'vitest';
import { serversWords } from './arriving';
import { differenceWords, siteWords, zoneDifference } from './zones';

const record = (name: string, data: string) => ({ name, ttl: 60, type: 'A', data });

test('a zone that differs is told by how many records are missing and new', () => {
  const now = { origin: 'kelpkiln.com', records: [record('www', '192.0.2.9')] };
  const difference = zoneDifference('$ORIGIN kelpkiln.com.\nwww 60 IN A 192.0.2.7\nshop 60 IN A 192.0.2.7\n', now);
  expect(differenceWords(difference)).toBe('Its zone differs from before: 2 records missing, one record new.');
  expect(differenceWords({ lost: [], came: [] })).toBeNull();
  expect(differenceWords({ lost: [record('a', 'b')], came: [] })).toBe(
    'Its zone differs from before: one record missing.',
  );
});

test('a copy that cannot be read any more differs in everything that is there, and in nothing that is not', () => {
  const now = { origin: 'kelpkiln.com', records: [record('www', '192.0.2.9')] };
  expect(zoneDifference('(', now)).toEqual({ lost: [], came: now.records });
});

test('name servers in another order or other letters are the same; where none were known nothing is compared', () => {
  expect(
    serversWords(['NS1.quaymark.test', 'ns2.quaymark.test'], ['ns2.quaymark.test', 'ns1.quaymark.test']),
  ).toBeNull();
  expect(serversWords([], ['ns1.quaymark.test'])).toBeNull();
  expect(serversWords(['ns1.quaymark.test'], [])).toBe('Its name servers differ: ns1.quaymark.test before, none now.');
});

test('a site that answers otherwise is told; one that was not asked is not', () => {
  expect(siteWords('200', 'no answer')).toBe('Its site: 200 before, no answer now.');
  expect([siteWords('200', '200'), siteWords(null, '200'), siteWords('200', null)]).toEqual([null, null, null]);
});
