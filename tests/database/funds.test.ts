import { afterEach, describe, expect, test } from 'vitest';
import { instant } from '@/core/time';
import { changeFunds } from '@/usecases/accounts/funds';
import { readBalances } from '@/usecases/links/readAccount';
import { type LinkedLedger, linkedLedger } from './practice';

const END = instant('2027-03-09T10:15:00Z');
let made: LinkedLedger;
afterEach(() => made.close());
const begin = async () => {
  made = await linkedLedger(['copperbuoy.com'], END);
  await readBalances(made.ledger);
  return made;
};
const books = async () =>
  (await made.ledger.database.query('select balance_minor as b from accounts')).rows[0].b as number;
const outside = () => made.world.customers.get('quaymark')?.balanceMinor;

describe('topping up', () => {
  test('the registrar first, then the books', async () => {
    const { ledger, accountId } = await begin();
    expect(await books()).toBe(18_640);
    expect(await changeFunds(ledger, { accountId, topUpMinor: 5000 })).toBe('$50.00 paid in at Quaymark Names BV.');
    expect([await books(), outside()]).toEqual([23_640, 23_640]);
  });

  test.each(['result lost', 'cut', 'busy', 'duplicate'] as const)('%s: paid in once', async (fault) => {
    const { ledger, accountId, practice } = await begin();
    practice.faults.set('quaymark', fault, 2);
    expect(await changeFunds(ledger, { accountId, topUpMinor: 5000 })).toContain('paid in');
    expect([await books(), outside()]).toEqual([23_640, 23_640]);
  });

  test('never answered: nothing is written down, and it says what to look at first', async () => {
    const { ledger, accountId, practice } = await begin();
    practice.faults.set('quaymark', 'result lost', 9);
    expect(await changeFunds(ledger, { accountId, topUpMinor: 5000 })).toMatchObject({ code: 'top-up-unknown' });
    expect(await books()).toBe(18_640);
    practice.faults.set('quaymark', null, 0);
    await readBalances(ledger);
    expect(await books()).toBe(23_640);
  });

  test('without a link it is written down', async () => {
    const { ledger, accountId } = await begin();
    await ledger.database.query(
      'update accounts set link_host = null, link_port = null, link_login = null, link_secret = null',
    );
    expect(await changeFunds(ledger, { accountId, topUpMinor: 5000 })).toBe(
      '$50.00 written down for Quaymark Names BV.',
    );
    expect([await books(), outside()]).toEqual([23_640, 18_640]);
  });

  test('what makes no sense is refused', async () => {
    const { ledger, accountId } = await begin();
    expect(await changeFunds(ledger, { accountId, topUpMinor: 0 })).toMatchObject({ field: 'topUpMinor' });
    expect(await changeFunds(ledger, { accountId })).toMatchObject({ code: 'funds-empty' });
    expect(await changeFunds(ledger, { accountId: 999, topUpMinor: 100 })).toMatchObject({ code: 'account-unknown' });
    expect(await changeFunds(ledger, { accountId, card: 'no such card', endsMonth: '2030-01' })).toMatchObject({
      kind: 'refusal',
    });
  });
});
