import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { contradictionOf, fundingOf, indexRules, type LedgerName, projectLedger, rowsOn } from '@/core/ledger';
import { addDays, addYears, formatInstant, type Instant, instant, parseTermEnd } from '@/core/time';
import { nameWith, QUAYMARK, RENEWAL, rulesWith, TODAY } from './sampleLedger';

const UNTIL = addYears(TODAY, 2);
const account = (balanceMinor: number | null, more: Partial<typeof QUAYMARK> = {}) => ({
  ...QUAYMARK,
  balanceMinor,
  ...more,
});
const project = (balanceMinor: number | null, names: readonly LedgerName[], more: Partial<typeof QUAYMARK> = {}) =>
  projectLedger(indexRules(rulesWith({ accounts: [account(balanceMinor, more)] })), names, TODAY);
const funded = (balanceMinor: number | null, names: readonly LedgerName[], until: Instant = UNTIL, more = {}) => {
  const [found] = fundingOf(project(balanceMinor, names, more), until);
  if (!found) throw new Error('no account');
  return found;
};
const on = (ascii: string, days: number) =>
  nameWith(ascii, formatInstant(addDays(TODAY, days)), { setting: 'on', registered: null });

describe('an account played forward', () => {
  const names = [on('a.com', 10), on('b.com', 12), on('c.com', 14)];

  test('tells every charge with the balance after it, the first failure and its cause, and what lapses', () => {
    const funding = funded(2500, names, instant('2027-01-31T00:00:00Z'));
    expect(funding.charges.map((charge) => [charge.outcome, charge.balanceMinor])).toEqual([
      ['pass', 1362],
      ['pass', 224],
      ['fail', 224],
    ]);
    expect(funding.firstFailure?.cause).toEqual({ kind: 'balance short', missing: { minor: 914, currency: 'USD' } });
    expect(funding.lapsing).toEqual([2]);
    expect(funding.leastTopUp).toEqual({ minor: 914, by: addDays(TODAY, 9) });
    // Over a year more the same three are charged again.
    expect(funded(2500, names, addYears(instant('2027-01-31T00:00:00Z'), 1)).leastTopUp?.minor).toBe(6 * 1138 - 2500);
    expect(funding.months).toEqual([
      { month: '2026-11', charges: 1, passingMinor: 1138, failing: 0, failingMinor: 0 },
      { month: '2026-12', charges: 2, passingMinor: 1138, failing: 1, failingMinor: 1138 },
    ]);
  });

  test('a card that ends is a cause of its own', () => {
    const card = { paymentMethods: [{ kind: 'card' as const, label: 'blue card', endsMonth: '2026-11' }] };
    expect(funded(null, names, UNTIL, card).firstFailure?.cause).toEqual({
      kind: 'card ended',
      label: 'blue card',
      endsMonth: '2026-11',
    });
    expect(funded(null, names, UNTIL, card).leastTopUp).toBeNull();
  });
});

test('with the least top-up every charge passes, and with a cent less one does not', () => {
  const portfolio = fc.array(fc.record({ days: fc.integer({ min: 6, max: 700 }), on: fc.boolean() }), {
    minLength: 1,
    maxLength: 25,
  });
  fc.assert(
    fc.property(
      portfolio,
      fc.integer({ min: 0, max: 60_000 }),
      fc.constantFrom([], [3], [4, 2]),
      (rows, balance, retryDays) => {
        const names = rows.map((row, i) =>
          nameWith(`n${String(i).padStart(2, '0')}.com`, formatInstant(addDays(TODAY, row.days)), {
            setting: row.on ? 'on' : 'off',
            registered: null,
          }),
        );
        const fails = (minor: number) => funded(minor, names, UNTIL, { retryDays }).firstFailure !== null;
        const topUp = funded(balance, names, UNTIL, { retryDays }).leastTopUp;
        if (topUp === null) {
          expect(fails(balance)).toBe(false);
          return;
        }
        expect(fails(balance + topUp.minor)).toBe(false);
        expect(fails(balance + topUp.minor - 1)).toBe(true);
      },
    ),
  );
});

describe('contradictions are seen before they cost', () => {
  const first = (more: Partial<LedgerName>, own: Partial<typeof QUAYMARK> = {}) => {
    const projection = project(100_000, [nameWith('a.com', '2026-12-20T00:00:00Z', { setting: 'on', ...more })], own);
    return contradictionOf(rowsOn(projection, TODAY)(0), projection.index.rules.accounts[0], TODAY)?.kind ?? null;
  };
  test.each([
    [{ purpose: 'drop' as const }, {}, 'on for a name being dropped'],
    [{ neverLost: true, setting: 'off' as const }, {}, 'off for a name never to be lost'],
    [{ neverLost: true, setting: 'stalled' as const }, {}, 'off for a name never to be lost'],
    [{ neverLost: true, standing: 'believed' as const }, {}, 'believed, never confirmed'],
    [{ neverLost: true, standing: 'confirmed' as const }, {}, null],
    [{ standing: 'confirmed' as const }, { yearsPerCharge: 3 }, 'several years a charge'],
    [{ standing: 'confirmed' as const }, {}, null],
    [{}, {}, 'believed, never confirmed'],
    [{ termEnd: parseTermEnd('2027-06-20') }, {}, null],
  ])('%j at an account with %j: %s', (name, own, kind) => {
    expect(first(name, own)).toBe(kind);
  });
});

test('prices come with the tax that the account adds', () => {
  const projection = project(100_000, [on('a.com', 30)], { taxPercent: 19 });
  expect(projection.charges.of(0)[0]?.cost?.minor).toBe(Math.round(RENEWAL.yearMinor * 1.19));
});
