import { describe, expect, test } from 'vitest';
import { leadsTo, type SeenPlace, type WindowPlace, windowRecords } from './place';

const PLACE: WindowPlace = {
  a: ['203.0.113.7', '203.0.113.8'],
  aaaa: ['2001:db8::7'],
  cname: 'shop.harbour.test',
  nameServers: ['ns1.harbour.test', 'ns2.harbour.test'],
};
const NOWHERE: WindowPlace = { a: [], aaaa: [], cname: null, nameServers: [] };
const seen = (more: Partial<SeenPlace>): SeenPlace => ({ a: [], aaaa: [], nameServers: [], ...more });

test('what is to be set: addresses at the top, www by the host', () => {
  expect(windowRecords(PLACE).map(({ owner, type, data }) => `${owner} ${type} ${data}`)).toEqual([
    '@ A 203.0.113.7',
    '@ A 203.0.113.8',
    '@ AAAA 2001:db8::7',
    'www CNAME shop.harbour.test.',
  ]);
  expect(windowRecords({ ...PLACE, cname: null }).map(({ owner }) => owner)).toEqual([
    '@',
    '@',
    '@',
    'www',
    'www',
    'www',
  ]);
  expect(windowRecords(NOWHERE)).toEqual([]);
});

describe('a name leads to its window', () => {
  test.each([
    ['by one of its addresses', { a: ['203.0.113.7'] }, true],
    ['by both kinds', { a: ['203.0.113.8'], aaaa: ['2001:DB8::7'] }, true],
    ['not with a foreign address beside it', { a: ['203.0.113.7', '198.51.100.1'] }, false],
    ['not with a foreign address of the other kind', { a: ['203.0.113.7'], aaaa: ['2001:db8::99'] }, false],
    ['by its name servers, whatever their case or dot', { nameServers: ['NS1.harbour.test.'] }, true],
    ['not by name servers of which one is foreign', { nameServers: ['ns1.harbour.test', 'ns.elsewhere.test'] }, false],
    ['not where nothing is seen', {}, false],
    // The servers are ours and say something else: what they say counts.
    [
      'not by name servers that show another address',
      { a: ['198.51.100.1'], nameServers: ['ns1.harbour.test'] },
      false,
    ],
  ])('%s', (_, more, leads) => {
    expect(leadsTo(PLACE, seen(more))).toBe(leads);
  });

  test('nothing leads where the office has said no place; name servers alone are enough', () => {
    expect(leadsTo(NOWHERE, seen({ a: ['203.0.113.7'], nameServers: ['ns1.harbour.test'] }))).toBe(false);
    const byServers = { ...NOWHERE, nameServers: PLACE.nameServers };
    expect(leadsTo(byServers, seen({ a: ['192.0.2.9'], nameServers: ['ns2.harbour.test'] }))).toBe(true);
  });
});
