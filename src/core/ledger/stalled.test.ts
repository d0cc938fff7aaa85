import { expect, test } from 'vitest';
import { indexRules, mendingOf, projectLedger, rowsOn } from '@/core/ledger';
import { addDays, formatInstant } from '@/core/time';
import { nameWith, QUAYMARK, rulesWith, TODAY } from './sampleLedger';

const mending = (endDays: number, balanceMinor: number, retryDays: readonly number[] = [2]) => {
  const name = nameWith('one.com', formatInstant(addDays(TODAY, endDays)), { setting: 'stalled' });
  const account = {
    ...QUAYMARK,
    balanceMinor,
    retryDays,
    paymentMethod: QUAYMARK.paymentMethods.filter(({ kind }) => kind === 'balance'),
  };
  const projection = projectLedger(indexRules(rulesWith({ accounts: [account] })), [name], TODAY);
  return mendingOf(rowsOn(projection, TODAY)(0));
};

test('a stalled name whose next try passes has only to wait', () => {
  expect(mending(10, 5000)).toMatchObject({ kind: 'wait', charge: { outcome: 'pass' } });
});

test('one whose next try fails wants money before it', () => {
  expect(mending(10, 100)).toMatchObject({ kind: 'fund', cause: { kind: 'balance short' } });
});

test('without another try it has to be renewed by its owner, and past the late window restored', () => {
  expect(mending(10, 5000, [])).toEqual({ kind: 'renew' });
  expect(mending(-5, 5000)).toEqual({ kind: 'renew' });
  expect(mending(-60, 5000)).toEqual({ kind: 'restore' });
  expect(mending(-100, 5000)).toBeNull();
});
