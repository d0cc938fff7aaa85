import { describe, expect, test } from 'vitest';
import { indexRules, projectLedger } from '../ledger';
import { nameWith, QUAYMARK, rulesWith, TODAY } from '../ledger/sampleLedger';
import { amount } from '../money';
import { addDays } from '../time';
import { balanceAfter, refundableUntil, starvedBy } from './registering';

/** Source: the ending's refundable days are common practice, at most 5; whether the customer is credited is the account's rule. */
describe('until when a new name can be given back', () => {
  test.each([
    [5, true, addDays(TODAY, 5)],
    [5, false, null],
    [0, true, null],
    [2, true, addDays(TODAY, 2)],
  ])('%i days, the account credits: %s', (refundableDays, refunds, until) => {
    expect(refundableUntil(TODAY, { refundableDays }, { refunds })).toBe(until);
  });
});

describe('what is left of a balance', () => {
  test.each([
    [18_640, [amount(1138, 'USD'), amount(400, 'USD')], 17_102],
    [1000, [amount(1138, 'USD')], -138],
    [1000, [], 1000],
    // Another currency is not taken off: nobody knows at which rate.
    [1000, [amount(900, 'EUR')], 1000],
  ])('%i less %j', (balance, sums, left) => {
    expect(balanceAfter(balance, sums, 'USD')).toEqual(amount(left, 'USD'));
  });

  test('one that is not known stays so', () => {
    expect(balanceAfter(null, [amount(1, 'USD')], 'USD')).toBeNull();
  });
});

describe('the coming charge that a purchase starves', () => {
  /** Two names on auto-renew at 11.38 a year, paid from a balance. */
  const played = (balanceMinor: number | null) => {
    const account = {
      ...QUAYMARK,
      balanceMinor,
      paymentMethods: [{ kind: 'balance' as const, label: 'balance', endsMonth: null }],
    };
    const names = [
      nameWith('early.com', '2027-01-10T00:00:00Z', { setting: 'on' }),
      nameWith('later.com', '2027-03-10T00:00:00Z', { setting: 'on' }),
    ];
    return projectLedger(indexRules(rulesWith({ accounts: [account] })), names, TODAY);
  };
  const price = 1138;

  test('the first one that passes now and would not pass then', () => {
    const projection = played(2 * price);
    expect(starvedBy(projection, QUAYMARK.id, 1)).toMatchObject({ ascii: 'later.com' });
    expect(starvedBy(projection, QUAYMARK.id, price + 1)).toMatchObject({
      ascii: 'early.com',
      cost: amount(price, 'USD'),
    });
  });

  test('one that fails already is none of the purchase’s doing', () => {
    expect(starvedBy(played(price), QUAYMARK.id, 0)).toBeNull();
    expect(starvedBy(played(price), QUAYMARK.id, 1)).toMatchObject({ ascii: 'early.com' });
    expect(starvedBy(played(0), QUAYMARK.id, 500)).toBeNull();
  });

  test('nothing is said where the balance is not known, the account is not there, or nothing is spent', () => {
    expect(starvedBy(played(null), QUAYMARK.id, 500)).toBeNull();
    expect(starvedBy(played(5000), 99, 500)).toBeNull();
    expect(starvedBy(played(5000), QUAYMARK.id, -5)).toBeNull();
  });
});
