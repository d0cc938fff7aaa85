import { describe, expect, test } from 'vitest';
import { amount } from '../money';
import { type Day, instant } from '../time';
import { accountsToTry, overCaps } from './releaseOrder';

const DAY = '2026-11-24' as Day;
const CAPS = { mostFirst: amount(5000, 'USD'), mostRenewal: amount(2000, 'USD') };
const EUR = [{ from: '2026-01-01' as Day, currency: 'EUR', into: 'USD', factor: 1.1 }];

describe('nothing is bought beyond its caps', () => {
  test.each([
    ['within both', amount(5000, 'USD'), amount(2000, 'USD'), null],
    ['the first is dearer', amount(5001, 'USD'), amount(1000, 'USD'), 'the first term costs more'],
    ['a cheap first year with dear renewals', amount(100, 'USD'), amount(2001, 'USD'), 'the renewal costs more'],
    ['a price that is not told', null, amount(1000, 'USD'), 'is not told'],
    ['a renewal that is not told', amount(1000, 'USD'), null, 'is not told'],
    ['another currency, within', amount(4500, 'EUR'), amount(1800, 'EUR'), null],
    ['another currency, beyond', amount(4600, 'EUR'), amount(1800, 'EUR'), 'the first term costs more'],
    ['a currency without a rate', amount(10, 'GBP'), amount(10, 'GBP'), 'no rate brings GBP into USD'],
  ])('%s', (_what, register, renew, why) => {
    const refused = overCaps({ register, renew }, CAPS, EUR, DAY);
    if (why === null) expect(refused).toBeNull();
    else expect(refused).toContain(why);
  });
});

test('a registrar is tried once a minute at most, whichever name it is for', () => {
  const now = instant('2026-11-24T09:12:00Z');
  const ago = (ms: number) => (now - ms) as typeof now;
  const last = new Map([
    [1, ago(59_999)],
    [2, ago(60_000)],
  ]);
  expect(accountsToTry([1, 2, 3], last, now)).toEqual([2, 3]);
  expect(accountsToTry([3, 1], last, now)).toEqual([3]);
});
