import { expect, test } from 'vitest';
import type { Price } from '../pricing';
import type { Day } from '../time';
import { indexRules, type LedgerName, moveSaving, projectLedger, rowsOn, weighOffer } from './index';
import { GENERIC, nameWith, QUAYMARK, RENEWAL, rulesWith, TODAY } from './sampleLedger';

const CHEAP = { ...QUAYMARK, id: 2, label: 'Wrackgate' };
const price = (accountId: number, action: Price['action'], yearMinor: number, more: Partial<Price> = {}): Price => ({
  ...RENEWAL,
  accountId,
  action,
  yearMinor,
  ...more,
});
const HERE = price(1, 'renew', 1640);
const THERE = [price(2, 'renew', 1130), price(2, 'transfer', 990)];

function savingOf(prices: readonly Price[], more: Partial<LedgerName> = {}, expires = '2027-05-01T00:00:00Z') {
  const rules = rulesWith({ accounts: [QUAYMARK, CHEAP], policies: [{ ...GENERIC, yearlyFee: false }], prices });
  const index = indexRules(rules);
  const projection = projectLedger(index, [nameWith('kelpkiln.com', expires, more)], TODAY);
  return moveSaving(index, rowsOn(projection, TODAY)(0), TODAY);
}

test('what staying costs, less the way that begins with the move, over five years', () => {
  // Five times 16.40 is 82.00; 9.90 for the move with a year, four times 11.30: 55.10. Arithmetic of invented figures.
  expect(savingOf([HERE, ...THERE])).toMatchObject({
    kind: 'saves',
    accountId: 2,
    years: 5,
    stayMinor: 8200,
    savedMinor: 2690,
    path: { totalMinor: 5510 },
  });
});

test.each<[string, ReturnType<typeof savingOf>]>([
  ['nothing cheaper', savingOf([price(1, 'renew', 1000), ...THERE])],
  ['nothing cheaper', savingOf([price(1, 'renew', 1102), ...THERE])],
  ['price of its own', savingOf([HERE, ...THERE, price(1, 'renew', 90_000, { nameId: 7 })], { id: 7 })],
  ['not known here', savingOf(THERE)],
  ['not known here', savingOf([HERE, ...THERE, price(2, 'privacy', 100)], { privacy: true })],
  ['not known elsewhere', savingOf([HERE])],
  ['not known elsewhere', savingOf([HERE, price(2, 'renew', 1130)])],
  // No rate from pounds to dollars is known.
  ['not known elsewhere', savingOf([HERE, ...THERE.map((one) => ({ ...one, currency: 'GBP' }))])],
  ['not known elsewhere', savingOf([HERE, ...THERE, price(1, 'privacy', 100)], { privacy: true })],
])('%s', (kind, saving) => {
  expect(saving).toMatchObject({ kind, years: 5 });
});

test('out of its term nothing is moved, so nothing is weighed', () => {
  expect(savingOf([HERE, ...THERE], {}, '2026-11-20T00:00:00Z')).toBeNull();
  expect(savingOf([HERE, ...THERE], { termEnd: null })).toBeNull();
});

test('prices count from the day that is looked at', () => {
  const later = price(2, 'renew', 3000, { from: '2026-11-24' as Day });
  expect(savingOf([HERE, ...THERE, later])).toMatchObject({ kind: 'nothing cheaper', accountId: 2 });
});

test('an offer to stay is weighed over the same years, with the rise that its renewals have had', () => {
  const rules = rulesWith({
    accounts: [QUAYMARK, CHEAP],
    policies: [GENERIC],
    prices: [HERE, ...THERE],
    rises: [{ accountId: 1, ending: 'com', yearly: 0.1 }],
    rates: [],
  });
  const index = indexRules(rules);
  const row = { name: nameWith('kelp.com', '2027-06-01T00:00:00Z'), phase: 'term' as const };
  const asked = { ...row, termEnd: row.name.termEnd };
  const weigh = (minor: number, currency = 'USD') =>
    weighOffer(index, asked, TODAY, { offer: { minor, currency }, targetId: 2, years: 3 });
  // 1000, 1100 and 1210: the first is paid before a year has passed.
  expect(weigh(1000)).toMatchObject({ years: 3, stayMinor: 1000 + 1100 + 1210 });
  expect(weigh(1000)?.moveMinor).toBe(moveSavingTotal(index, asked));
  expect(weigh(1000, 'GBP')).toBeNull();
});

function moveSavingTotal(index: ReturnType<typeof indexRules>, asked: Parameters<typeof moveSaving>[1]): number | null {
  const saving = moveSaving(index, asked, TODAY, { years: 3, targetId: 2 });
  return saving && 'path' in saving ? saving.path.totalMinor : null;
}
