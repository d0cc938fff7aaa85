import { expect, test } from 'vitest';
import { differs } from './differs';

test.each([
  ['term ends', ['6 Nov 2026', '6 Nov 2027', '6 Nov 2026'], [false, true, false]],
  // The same servers in another order and other letters are the same.
  [
    'name servers',
    ['ns1.quaymark.test, ns2.quaymark.test', 'NS2.quaymark.test, ns1.quaymark.test', ''],
    [false, false, false],
  ],
  ['lock', ['on', 'off', 'on'], [false, true, false]],
  // A phase and statuses are different words for it.
  ['statuses', ['late', 'autoRenewPeriod', ''], [false, false, false]],
  // What one side does not say is no difference.
  ['registrar', ['', 'Quaymark Names BV', ''], [false, false, false]],
])('%s: what another says in other words is marked', (what, said, wanted) => {
  expect(said.map((_, place) => differs(said, place, what))).toEqual(wanted);
});
