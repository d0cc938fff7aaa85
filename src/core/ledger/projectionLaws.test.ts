import fc from 'fast-check';
import { expect, test } from 'vitest';
import { indexRules, type LedgerName, type LedgerRules, projectLedger, rowsOn } from '@/core/ledger';
import { type Phase, phaseAt } from '@/core/lifecycle';
import { addDays, formatInstant, type Instant } from '@/core/time';
import { GENERIC, nameWith, QUAYMARK, RENEWAL, rulesWith, TODAY } from './sampleLedger';

/** Laws that hold of any forecast in which nobody acts, whatever the portfolio. */
const portfolio = fc.array(
  fc.record({
    account: fc.constantFrom(1, 2),
    minutes: fc.integer({ min: -70 * 1440, max: 700 * 1440 }),
    setting: fc.constantFrom<LedgerName['setting']>('on', 'on', 'off', 'stalled'),
  }),
  { minLength: 1, maxLength: 25 },
);
type Portfolio = typeof portfolio extends fc.Arbitrary<infer T> ? T : never;

const rules = (balance: number, accounts: readonly number[] = [1, 2]): LedgerRules =>
  rulesWith({
    accounts: accounts.map((id) => ({ ...QUAYMARK, id, balanceMinor: balance, leadDays: id * 4, retryDays: [3, 1] })),
    prices: accounts.map((accountId) => ({ ...RENEWAL, accountId })),
    policies: [GENERIC],
  });
const made = (rows: Portfolio): LedgerName[] =>
  rows.map((row, i) =>
    nameWith(`n${String(i).padStart(3, '0')}.com`, formatInstant((TODAY + row.minutes * 60_000) as Instant), {
      accountId: row.account,
      setting: row.setting,
    }),
  );
const told = (list: readonly LedgerName[], ledgerRules: LedgerRules, asOf: Instant, day: Instant) => {
  const read = rowsOn(projectLedger(indexRules(ledgerRules), list, asOf), day);
  return list.map((name, place) => {
    const { phase, termEnd, setting } = read(place);
    return [name.ascii, phase, termEnd?.at, setting];
  });
};
const balance = fc.integer({ min: 0, max: 40_000 });
const ahead = fc.integer({ min: 1, max: 700 });

test('accounts are isolated: what one holds changes nothing at the other', () => {
  fc.assert(
    fc.property(portfolio, balance, ahead, (rows, money, days) => {
      const all = made(rows);
      const own = all.filter((name) => name.accountId === 1);
      const day = addDays(TODAY, days);
      const together = told(all, rules(money), TODAY, day).filter((_, place) => all[place]?.accountId === 1);
      expect(together).toEqual(told(own, rules(money, [1]), TODAY, day));
    }),
  );
});

test('observing exactly what was forecast changes nothing of what follows', () => {
  fc.assert(
    fc.property(portfolio, balance, fc.integer({ min: 1, max: 300 }), ahead, (rows, money, days, more) => {
      const names = made(rows);
      const middle = addDays(TODAY, days);
      const later = addDays(middle, more);
      const whole = projectLedger(indexRules(rules(money)), names, TODAY);
      const read = rowsOn(whole, middle);
      const seen = names.map((name, place) => {
        const { termEnd, setting } = read(place);
        return { ...name, termEnd, setting };
      });
      // What each account has left by then, from the charges that were forecast to pass.
      const left = (id: number) =>
        names.reduce(
          (sum, name, place) =>
            name.accountId !== id
              ? sum
              : whole.charges
                  .of(place)
                  .filter(
                    (charge) => charge.outcome === 'pass' && charge.at <= middle && charge.paymentMethod === 'balance',
                  )
                  .reduce((rest, charge) => rest - (charge.cost?.minor ?? 0), sum),
          money,
        );
      const then = rules(money);
      const known = { ...then, accounts: then.accounts.map((one) => ({ ...one, balanceMinor: left(one.id) })) };
      expect(told(seen, known, (middle + 1) as Instant, later)).toEqual(told(names, rules(money), TODAY, later));
    }),
  );
});

test('a mark belongs to what follows: one millisecond decides', () => {
  fc.assert(
    fc.property(fc.integer({ min: -70 * 1440, max: 400 * 1440 }), (minutes) => {
      const name = nameWith('one.com', formatInstant((TODAY + minutes * 60_000) as Instant), { setting: 'off' });
      const read = rowsOn(projectLedger(indexRules(rules(0)), [name], TODAY), TODAY);
      const { marks } = read(0);
      if (!marks) throw new Error('a name with a term end has marks');
      const phases: Phase[] = ['term', 'late', 'redemption', 'pending delete', 'available'];
      for (const [i, at] of [marks.termEnd, marks.deletion, marks.redemptionEnd, marks.release].entries()) {
        expect([phaseAt(marks, null, (at - 1) as Instant), phaseAt(marks, null, at)]).toEqual([
          phases[i],
          phases[i + 1],
        ]);
      }
    }),
  );
});

test('with auto-renew off everywhere, money changes nothing', () => {
  fc.assert(
    fc.property(portfolio, balance, ahead, (rows, money, days) => {
      const off = made(rows.map((row) => ({ ...row, setting: 'off' as const })));
      const day = addDays(TODAY, days);
      expect(told(off, rules(money), TODAY, day)).toEqual(told(off, rules(0), TODAY, day));
    }),
  );
});
