import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { amount } from '../money';
import { addDays, addYears, formatInstant, type Instant, instant, parseTermEnd, type TermEnd } from '../time';
import type { Payment } from './charge';
import { DueQueue } from './dueQueue';
import {
  type Charge,
  type ChargedName,
  ChargeTable,
  cardIsGood,
  chargedNames,
  chargedState,
  type FundedAccount,
  isChargedAtOnce,
  playCharges,
  playingCharges,
  projectCharges,
} from './index';

const ASOF = instant('2026-11-24T09:12:00Z');
const UNTIL = addYears(ASOF, 3);
const balanceOnly: FundedAccount = {
  currency: 'USD',
  leadDays: 5,
  yearsPerCharge: 1,
  retryDays: [],
  paymentMethods: [{ kind: 'balance', label: 'balance', endsMonth: null }],
  balanceMinor: 3000,
};
const name = (ascii: string, end: string, cost = 1138, more: Partial<ChargedName> = {}): ChargedName => {
  const termEnd: TermEnd = { at: instant(end), precision: 'instant' };
  return {
    place: 0,
    ascii,
    termEnd,
    setting: 'on',
    years: 1,
    chargeableUntil: addDays(termEnd.at, 45),
    costAt: () => amount(cost, 'USD'),
    ...more,
  };
};
/** The state of a name on a day after some charges of its own. */
const stateAfter = (one: ChargedName, charges: readonly Charge[], day: Instant) => {
  const table = new ChargeTable(1);
  for (const { at, years, cost, newEnd, assumed, ...payment } of charges)
    table.add(0, at, years, cost, payment as Payment, assumed, newEnd.at, newEnd.precision === 'day');
  return chargedState(one, table, 0, ASOF, day);
};
const told = (charges: ReturnType<typeof projectCharges>) =>
  charges.map((list) =>
    list.map((c) => `${formatInstant(c.at).slice(0, 10)} ${c.outcome}${c.assumed ? '?' : ''} ${c.balanceMinor ?? '-'}`),
  );

describe('a charge is made the account’s days before the end, out of its payment methods in order', () => {
  test('the balance is enough for two charges and not for the third', () => {
    const names = [
      name('a.com', '2026-12-10T00:00:00Z'),
      name('b.com', '2026-12-12T00:00:00Z'),
      name('c.com', '2026-12-14T00:00:00Z'),
    ];
    const charges = projectCharges(balanceOnly, names, ASOF, instant('2027-01-01T00:00:00Z'));
    expect(told(charges)).toEqual([['2026-12-05 pass 1862'], ['2026-12-07 pass 724'], ['2026-12-09 fail 724']]);
    expect(charges[2]?.[0]?.cause).toEqual({ kind: 'balance short', missing: amount(414, 'USD') });
  });

  test('a card steps in when the balance is short, and is never split with it', () => {
    const account = {
      ...balanceOnly,
      balanceMinor: 1000,
      paymentMethods: [...balanceOnly.paymentMethods, { kind: 'card' as const, label: 'card', endsMonth: '2026-12' }],
    };
    const [list] = projectCharges(account, [name('a.com', '2026-12-10T00:00:00Z')], ASOF, UNTIL);
    expect(list?.[0]).toMatchObject({ outcome: 'pass', paymentMethod: 'card', balanceMinor: 1000 });
    expect(list?.[1]).toMatchObject({ outcome: 'fail', cause: { kind: 'card ended', endsMonth: '2026-12' } });
  });

  test('a card is good through the last day of its month', () => {
    expect(cardIsGood('2026-11', instant('2026-11-30T23:59:59Z'))).toBe(true);
    expect(cardIsGood('2026-11', instant('2026-12-01T00:00:00Z'))).toBe(false);
  });

  test('a failed charge stalls the name; others are still tried; a retry day comes before the end', () => {
    const account = { ...balanceOnly, balanceMinor: 1200, retryDays: [2, 40] };
    const names = [name('dear.io', '2026-12-10T00:00:00Z', 4800), name('late.com', '2026-12-11T00:00:00Z')];
    const charges = projectCharges(account, names, ASOF, instant('2027-01-01T00:00:00Z'));
    expect(told(charges)).toEqual([['2026-12-05 fail 1200', '2026-12-08 fail 62'], ['2026-12-06 pass 62']]);
    const state = stateAfter(names[0] as ChargedName, charges[0] ?? [], instant('2026-12-09T00:00:00Z'));
    expect(state).toMatchObject({ setting: 'stalled', coming: null, failed: { cause: { kind: 'balance short' } } });
  });

  test('with more money a dear charge passes and starves a later one', () => {
    const names = [name('dear.io', '2026-12-10T00:00:00Z', 4800), name('later.com', '2026-12-20T00:00:00Z')];
    const outcomes = (balanceMinor: number) =>
      projectCharges({ ...balanceOnly, balanceMinor }, names, ASOF, instant('2027-01-01T00:00:00Z')).map(
        (list) => list[0]?.outcome,
      );
    expect(outcomes(2000)).toEqual(['fail', 'pass']);
    expect(outcomes(5000)).toEqual(['pass', 'fail']);
  });

  test('charges at one instant go by A-label', () => {
    const names = [name('b.com', '2026-12-10T00:00:00Z'), name('a.com', '2026-12-10T00:00:00Z')];
    const charges = projectCharges(
      { ...balanceOnly, balanceMinor: 1200 },
      names,
      ASOF,
      instant('2026-12-31T00:00:00Z'),
    );
    expect(charges.map((list) => list[0]?.outcome)).toEqual(['fail', 'pass']);
  });

  test('what nobody has said is assumed to pass, and says so', () => {
    for (const account of [
      { ...balanceOnly, paymentMethods: [] },
      { ...balanceOnly, balanceMinor: null },
    ]) {
      const [list] = projectCharges(
        account,
        [name('a.com', '2026-12-10T00:00:00Z')],
        ASOF,
        instant('2026-12-31T00:00:00Z'),
      );
      expect(list?.[0]).toMatchObject({ outcome: 'pass', assumed: true });
    }
    const [unpriced] = projectCharges(
      balanceOnly,
      [name('a.com', '2026-12-10T00:00:00Z', 0, { costAt: () => null })],
      ASOF,
      instant('2026-12-31T00:00:00Z'),
    );
    expect(unpriced?.[0]).toMatchObject({ outcome: 'pass', assumed: true, cost: null, balanceMinor: 3000 });
  });

  test('a charge that was due already is attempted now, marked assumed', () => {
    const [list] = projectCharges(balanceOnly, [name('a.com', '2026-11-26T00:00:00Z')], ASOF, UNTIL);
    expect(list?.[0]).toMatchObject({ at: ASOF, outcome: 'pass', assumed: true });
    const [gone] = projectCharges(balanceOnly, [name('a.com', '2026-09-26T00:00:00Z')], ASOF, UNTIL);
    expect(gone).toEqual([]);
  });

  test('names whose auto-renew is not on are never charged', () => {
    for (const setting of ['off', 'stalled', 'unknown'] as const) {
      expect(
        projectCharges(balanceOnly, [name('a.com', '2026-12-10T00:00:00Z', 1138, { setting })], ASOF, UNTIL),
      ).toEqual([[]]);
    }
  });
});

const portfolio = fc.array(
  fc.record({
    ascii: fc.stringMatching(/^[a-z]{3,8}$/),
    days: fc.integer({ min: -40, max: 700 }),
    cost: fc.integer({ min: 100, max: 9000 }),
    on: fc.boolean(),
  }),
  { minLength: 1, maxLength: 30 },
);
const made = (rows: readonly { ascii: string; days: number; cost: number; on: boolean }[]) =>
  rows.map((row, i) =>
    name(`${row.ascii}${i}.com`, formatInstant(addDays(ASOF, row.days)), row.cost, { setting: row.on ? 'on' : 'off' }),
  );

test.each([
  ['where each name is played by itself', { ...balanceOnly, balanceMinor: null }],
  ['where a balance is shared', { ...balanceOnly, balanceMinor: 10_000_000 }],
])(
  'however many names there are, somebody else has a turn after a thousand of them or of their charges: %s',
  (_, account) => {
    const names = chargedNames(
      Array.from({ length: 12_000 }, (_, i) =>
        name(`name${i}.com`, formatInstant(addDays(ASOF, i % 700)), 100 + (i % 7)),
      ),
    );
    const table = new ChargeTable(12_000, 0);
    let [turns, most, before] = [0, 0, 0];
    for (const _ of playingCharges(account, names, ASOF, UNTIL, table)) {
      turns += 1;
      most = Math.max(most, table.size - before);
      before = table.size;
    }
    const once = new ChargeTable(12_000, 0);
    playCharges(account, names, ASOF, UNTIL, once);
    expect(turns).toBeGreaterThan(12);
    // Three years of a thousand names are played between two turns.
    expect(most).toBeLessThanOrEqual(3000);
    expect(table.size).toBe(once.size);
    for (const place of [0, 1, 699, 700, 11_999]) expect(table.of(place)).toEqual(once.of(place));
  },
);

describe('whatever the portfolio', () => {
  test('charges come in order of time, and a name’s in the order in which they were made', () => {
    fc.assert(
      fc.property(portfolio, (rows) => {
        const names = made(rows);
        const table = new ChargeTable(names.length, 0);
        playCharges(balanceOnly, chargedNames(names), ASOF, UNTIL, table);
        const all = Array.from({ length: table.size }, (_, i) => table.charge(i));
        expect(all.map(({ at }) => at)).toEqual(all.map(({ at }) => at).toSorted((a, b) => a - b));
        for (const place of names.keys()) expect(table.of(place)).toEqual(all.filter((one) => one.place === place));
        expect(projectCharges(balanceOnly, names, ASOF, UNTIL).flat()).toHaveLength(all.length);
      }),
    );
  });

  test('the order of the input does not matter', () => {
    fc.assert(
      fc.property(portfolio, (rows) => {
        const names = made(rows);
        const forward = projectCharges(balanceOnly, names, ASOF, UNTIL);
        const backward = projectCharges(balanceOnly, [...names].reverse(), ASOF, UNTIL).reverse();
        expect(backward).toEqual(forward);
      }),
    );
  });

  test('money is conserved: the balance falls by what it paid, and never below zero', () => {
    fc.assert(
      fc.property(portfolio, fc.integer({ min: 0, max: 60_000 }), (rows, balanceMinor) => {
        const charges = projectCharges({ ...balanceOnly, balanceMinor }, made(rows), ASOF, UNTIL).flat();
        const paid = charges
          .filter((charge) => charge.outcome === 'pass')
          .reduce((sum, charge) => sum + (charge.cost?.minor ?? 0), 0);
        const left = Math.min(balanceMinor, ...charges.map((charge) => charge.balanceMinor ?? 0));
        expect(left).toBe(balanceMinor - paid);
        expect(left).toBeGreaterThanOrEqual(0);
      }),
    );
  });

  test('with auto-renew off, money does not matter', () => {
    fc.assert(
      fc.property(portfolio, fc.integer({ min: 0, max: 60_000 }), (rows, balanceMinor) => {
        const off = made(rows.map((row) => ({ ...row, on: false })));
        expect(projectCharges({ ...balanceOnly, balanceMinor }, off, ASOF, UNTIL).flat()).toEqual([]);
      }),
    );
  });

  test('playing to a day and on from there is playing on at once', () => {
    fc.assert(
      fc.property(portfolio, fc.integer({ min: 1, max: 300 }), (rows, days) => {
        const names = made(rows).map((one) => ({ ...one, chargeableUntil: one.termEnd.at }));
        const middle = addDays(ASOF, days);
        const whole = projectCharges(balanceOnly, names, ASOF, UNTIL);
        const before = projectCharges(balanceOnly, names, ASOF, middle);
        const passed = before.flat().filter((charge) => charge.outcome === 'pass');
        const balanceMinor = passed.reduce(
          (left, charge) => left - (charge.cost?.minor ?? 0),
          balanceOnly.balanceMinor ?? 0,
        );
        const later = names.map((one, i) => {
          const state = stateAfter(one, before[i] ?? [], middle);
          return { ...one, termEnd: state.termEnd, setting: state.setting, chargeableUntil: state.termEnd.at };
        });
        const on = projectCharges({ ...balanceOnly, balanceMinor }, later, (middle + 1) as Instant, UNTIL);
        expect(on.map((list) => list.map((charge) => [charge.at, charge.outcome]))).toEqual(
          whole.map((list) => list.filter((charge) => charge.at > middle).map((charge) => [charge.at, charge.outcome])),
        );
      }),
    );
  });
});

test.each([
  [6, false],
  [5, true],
  [0, true],
  [-29, true],
  [-30, false],
])('%d days before the end of a term switching auto-renew on charges at once: %s', (days, isCharged) => {
  const end = parseTermEnd('2027-01-31T10:00:00Z') as TermEnd;
  const name = { termEnd: end, chargeableUntil: addDays(end.at, 30) };
  expect(isChargedAtOnce({ leadDays: 5 }, name, addDays(end.at, -days))).toBe(isCharged);
});

test('an automatic charge on the very day of the end is on time: no late fee', () => {
  const end = parseTermEnd('2027-01-31T10:00:00Z') as TermEnd;
  const late: boolean[] = [];
  projectCharges(
    { currency: 'USD', leadDays: 0, yearsPerCharge: 1, retryDays: [], paymentMethods: [], balanceMinor: null },
    [
      {
        place: 0,
        ascii: 'calm.com',
        termEnd: end,
        setting: 'on',
        years: 1,
        chargeableUntil: addDays(end.at, 30),
        costAt: (_years, _at, isLate) => {
          late.push(isLate);
          return null;
        },
      },
    ],
    addDays(end.at, -40),
    addDays(end.at, 1),
  );
  expect(late).toEqual([false]);
});

test('what is due comes by instant, then by index, whatever is put back', () => {
  const attempts = fc.array(fc.option(fc.integer({ min: 0, max: 60 }), { nil: Number.NaN }), { maxLength: 20 });
  fc.assert(
    fc.property(attempts, fc.array(fc.option(fc.nat({ max: 40 }), { nil: null }), { maxLength: 60 }), (due, steps) => {
      const queue = new DueQueue(Float64Array.from(due));
      // The same by sorting anew after every step.
      const waiting = due.flatMap((at, index) => (Number.isNaN(at) ? [] : [{ at, index }]));
      for (const step of steps) {
        waiting.sort((a, b) => a.at - b.at || a.index - b.index);
        const [first] = waiting;
        expect(queue.first).toBe(first?.index ?? -1);
        if (!first) break;
        expect(queue.at(first.index)).toBe(first.at);
        queue.pass(step === null ? null : ((first.at + step) as Instant));
        if (step === null) waiting.shift();
        else first.at += step;
      }
    }),
  );
});
