import { describe, expect, test } from 'vitest';
import { indexRules, type LedgerAccount, type LedgerName, projectLedger, rowsOn } from '../ledger';
import { GENERIC, nameWith, QUAYMARK, RENEWAL, rulesWith, TODAY } from '../ledger/sampleLedger';
import type { Price } from '../pricing';
import { addDays, dayOf } from '../time';
import { type MovePlan, type PlanAsked, planMoves } from './index';

const account = (id: number, label: string, more: Partial<LedgerAccount> = {}): LedgerAccount => ({
  ...QUAYMARK,
  id,
  label,
  ...more,
});
const price = (accountId: number, action: Price['action'], yearMinor: number, ending = 'com'): Price => ({
  ...RENEWAL,
  accountId,
  ending,
  action,
  yearMinor,
});

/** Dear at 1, cheap at 2, and in between at 3; two endings. Arithmetic of invented prices. */
const PRICES = [
  price(1, 'renew', 1640),
  price(2, 'renew', 1000),
  price(2, 'transfer', 1000),
  price(3, 'renew', 1300),
  price(3, 'transfer', 1300),
  price(1, 'renew', 5000, 'net'),
  price(2, 'renew', 2000, 'net'),
  price(2, 'transfer', 4000, 'net'),
];
const ASKED: PlanAsked = { years: 5, targetId: null, budgetMinor: null, evenIfDearer: false };

function plan(names: readonly LedgerName[], asked: Partial<PlanAsked> = {}, more: Partial<LedgerAccount> = {}) {
  const accounts = [account(1, 'Dear', more), account(2, 'Cheap'), account(3, 'Middling')];
  const projection = projectLedger(
    indexRules(rulesWith({ accounts, policies: [GENERIC], prices: PRICES })),
    names,
    TODAY,
  );
  const read = rowsOn(projection, TODAY);
  return planMoves(
    projection,
    names.map((_, place) => read(place)),
    { ...ASKED, ...asked },
  );
}
const moved = ({ waves }: MovePlan) =>
  waves.map(({ at, moves }) => [dayOf(at), ...moves.map(({ row, accountId }) => `${row.name.ascii} to ${accountId}`)]);
const name = (ascii: string, expires: string, more: Partial<LedgerName> = {}) =>
  nameWith(ascii, `${expires}T00:00:00Z`, { ending: ascii.slice(ascii.indexOf('.') + 1), lock: false, ...more });

test('a name goes where it is cheapest over the years; what it costs and saves is said', () => {
  const found = plan([name('kelp.com', '2027-06-01')]);
  expect(moved(found)).toEqual([['2026-11-24', 'kelp.com to 2']]);
  // Five years: 5 × 16.40 staying, against a transfer that adds one and four renewals at 10.00.
  expect(found).toMatchObject({ costMinor: 1000, savedMinor: 5 * 1640 - 5 * 1000 });
});

test('a target that is given is kept to, though another were cheaper; a name that is there stays', () => {
  const found = plan([name('kelp.com', '2027-06-01'), name('here.com', '2027-06-01', { accountId: 3 })], {
    targetId: 3,
  });
  expect(moved(found)).toEqual([['2026-11-24', 'kelp.com to 3']]);
  expect(found.left.map(({ row, why }) => [row.name.ascii, why])).toEqual([['here.com', 'there already']]);
});

describe('why a name is left where it is', () => {
  test.each<[string, LedgerName, Partial<PlanAsked>]>([
    ['nothing cheaper', name('a.com', '2027-06-01', { accountId: 2 }), {}],
    ['not known elsewhere', name('a.net', '2027-06-01'), { targetId: 3 }],
    ['not known here', name('a.org', '2027-06-01'), {}],
    ['out of its term', name('a.com', '2026-11-20'), {}],
    ['cannot be transferred', name('a.com', '2027-06-01', { statuses: ['serverTransferProhibited'] }), {}],
    ['on its way already', name('a.com', '2027-06-01', { id: 4711 }), { underWay: new Set([4711]) }],
    ['over the budget', name('a.com', '2027-06-01'), { budgetMinor: 999 }],
  ])('%s', (why, one, asked) => {
    const found = plan([one], asked);
    expect([found.waves.length, found.left.map((left) => left.why)]).toEqual([0, [why]]);
  });
});

test('under a budget the set that saves most is moved', () => {
  // Moving .net costs 40.00 and saves 5 × 50 − 40 − 4 × 20 = 130.00; a .com costs 10.00 and saves 32.00.
  const names = [name('a.net', '2027-06-01'), ...['b', 'c', 'd', 'e'].map((one) => name(`${one}.com`, '2027-06-01'))];
  const goes = (budgetMinor: number) =>
    plan(names, { budgetMinor }).waves.flatMap(({ moves }) => moves.map(({ row }) => row.name.ascii));
  expect(goes(3999)).toEqual(['b.com', 'c.com', 'd.com']);
  expect(goes(4000)).toEqual(['a.net']);
  expect(goes(5000)).toEqual(['a.net', 'b.com']);
});

test('who wants to leave moves what saves nothing too, as much as the budget allows', () => {
  const names = [name('a.com', '2027-06-01', { accountId: 2 }), name('b.com', '2027-06-01', { accountId: 2 })];
  const leaving = { targetId: 3, evenIfDearer: true };
  expect(moved(plan(names, leaving))).toEqual([['2026-11-24', 'a.com to 3', 'b.com to 3']]);
  expect(plan(names, leaving).savedMinor).toBe(-2 * 5 * 300);
  expect(moved(plan(names, { ...leaving, budgetMinor: 1300 }))).toEqual([['2026-11-24', 'a.com to 3']]);
});

describe('waves', () => {
  const fresh = (ascii: string, days: number) =>
    name(ascii, '2027-10-01', { registered: { at: addDays(TODAY, days - 60), precision: 'instant' } });

  test('what can go today goes today; what waits is gathered, never before its day, never past its last one', () => {
    const names = [name('now.com', '2027-06-01'), fresh('in9.com', 9), fresh('in14.com', 14), fresh('in30.com', 30)];
    expect(moved(plan(names))).toEqual([
      ['2026-11-24', 'now.com to 2'],
      ['2026-12-08', 'in9.com to 2', 'in14.com to 2'],
      ['2026-12-24', 'in30.com to 2'],
    ]);
    // It has to be under way by 5 December: eight days before its term ends.
    const hurried = { ...fresh('in9.com', 9), termEnd: name('x.com', '2026-12-13').termEnd };
    expect(moved(plan([hurried, fresh('in14.com', 14)]))).toEqual([
      ['2026-12-03', 'in9.com to 2'],
      ['2026-12-08', 'in14.com to 2'],
    ]);
  });

  test('a name that cannot arrive before its charge waits until the grace is over, and is charged before', () => {
    const found = plan([name('soon.com', '2026-12-03', { setting: 'on' })]);
    expect(moved(found)).toEqual([['2027-01-17', 'soon.com to 2']]);
    expect(found.waves[0]?.moves[0]?.chargedBefore).toEqual({ minor: 1640, currency: 'USD' });
    expect(found.accounts).toEqual([
      { accountId: 1, leaving: 1, staying: 0, charges: [{ minor: 1640, currency: 'USD' }], balanceMinor: 98_360 },
    ]);
  });

  test('what is left of the balance: less what is charged until the last has gone, nothing for what has gone before', () => {
    const names = [
      name('stays.net', '2026-12-20', { setting: 'on', ending: 'net', statuses: ['serverTransferProhibited'] }),
      name('goes.com', '2027-06-01', { setting: 'on' }),
      fresh('in30.com', 30),
    ];
    expect(plan(names).accounts).toEqual([{ accountId: 1, leaving: 2, staying: 1, charges: [], balanceMinor: 95_000 }]);
    expect(plan(names, {}, { balanceMinor: null }).accounts[0]?.balanceMinor).toBeNull();
  });

  test('a lock is named: it has to be taken off first', () => {
    expect(plan([name('a.com', '2027-06-01', { lock: true })]).waves[0]?.moves[0]?.isLocked).toBe(true);
  });
});
