import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  columnsOf,
  fundingOf,
  indexRules,
  LedgerDay,
  type LedgerName,
  type LedgerRules,
  mergeColumns,
  NameTable,
  type Projection,
  projectLedger,
  replayLedger,
  todayOf,
} from '@/core/ledger';
import { addDays, addYears, type Day, formatInstant, HOUR_MS, type Instant } from '@/core/time';
import { GENERIC, nameWith, QUAYMARK, RENEWAL, rulesWith, TODAY } from './sampleLedger';

/** An account that pays from what it holds, one whose card pays whatever comes, one that retries, one with a late fee. */
const ACCOUNTS = [
  { ...QUAYMARK, balanceMinor: 5000, retryDays: [4, 2] },
  { ...QUAYMARK, id: 2, label: 'Wrackgate', balanceMinor: null, lateFeeMinor: 350, auctionDay: 30 },
  {
    ...QUAYMARK,
    id: 3,
    label: 'Fernhithe',
    paymentMethods: [{ kind: 'card' as const, label: 'card', endsMonth: '2027-08' as never }],
    retryDays: [3],
  },
];
const rules = (balanceMinor: number, more: Partial<LedgerRules> = {}): LedgerRules =>
  rulesWith({
    accounts: ACCOUNTS.map((account) => (account.id === 1 ? { ...account, balanceMinor } : account)),
    policies: [GENERIC, { ...GENERIC, ending: 'uk', lateDays: 90, redemptionDays: 0, pendingDeleteDays: 0 }],
    prices: ACCOUNTS.flatMap(({ id }) => [
      { ...RENEWAL, accountId: id },
      { ...RENEWAL, accountId: id, yearMinor: 1300, from: '2027-05-01' as Day },
      { ...RENEWAL, accountId: id, ending: 'uk', yearMinor: 700 },
    ]),
    ...more,
  });

const facts = fc.record({
  /** Many ends lie on the very day, so that some fall between one look and the next. */
  minutes: fc.option(fc.oneof(fc.integer({ min: -900, max: 900 }), fc.integer({ min: -170_000, max: 900_000 })), {
    nil: null,
  }),
  isDay: fc.boolean(),
  accountId: fc.constantFrom(1, 2, 3),
  setting: fc.constantFrom<LedgerName['setting']>('on', 'on', 'on', 'off', 'stalled', 'unknown'),
  observed: fc.option(
    fc.record({
      phase: fc.constantFrom('redemption' as const, 'pending restore' as const, 'pending transfer' as const),
      at: fc.integer({ min: -20 * 1440, max: 0 }).map((minutes) => (TODAY + minutes * 60_000) as Instant),
    }),
    { nil: null, freq: 6 },
  ),
});
type Facts = typeof facts extends fc.Arbitrary<infer T> ? T : never;

const told = ({ minutes, isDay, ...more }: Facts): Partial<LedgerName> => {
  const at = minutes === null ? null : ((TODAY + minutes * 60_000) as Instant);
  const whole = at === null ? null : addDays((Math.floor(at / (24 * HOUR_MS)) * 24 * HOUR_MS) as Instant, 0);
  const termEnd =
    at === null ? null : ({ at: isDay ? (whole as Instant) : at, precision: isDay ? 'day' : 'instant' } as const);
  return { ...more, termEnd };
};
const nameOf = (one: Facts, i: number): LedgerName => {
  const ending = i % 3 === 0 ? 'uk' : 'com';
  return nameWith(`n${String(i).padStart(2, '0')}.${ending}`, null, { ending, ...told(one) });
};

/** All that a projection says: every name on several days, its charges, and what each account comes to. */
function said(projection: Projection, days: readonly LedgerDay[]) {
  return {
    charges: projection.names.all().map((_, place) => projection.charges.of(place)),
    funding: fundingOf(projection, addYears(projection.asOf, 2)),
    days: days.map((day) => ({
      columns: [day.phase, day.setting, day.termEnd, day.deadlineAt, day.deadlineKind].map((column) => [...column]),
      before: projection.names.all().map((_, place) => day.before(place)),
      rows: day.everyRow(),
    })),
  };
}
const AHEAD = [1, 40, 400];

describe('played on after a change', () => {
  test('a ledger is what it would be, played as a whole: names edited, moved, money added, hours gone by', () => {
    const change = fc.record({
      edits: fc.array(fc.tuple(fc.nat(), facts), { maxLength: 3 }),
      balance: fc.option(fc.integer({ min: 0, max: 20_000 }), { nil: null }),
      minutes: fc.integer({ min: 0, max: 300 }),
    });
    fc.assert(
      fc.property(
        fc.array(facts, { minLength: 1, maxLength: 14 }),
        fc.array(change, { minLength: 1, maxLength: 4 }),
        (start, changes) => {
          let names = start.map(nameOf).toSorted((a, b) => (a.ascii < b.ascii ? -1 : 1));
          let table = new NameTable(columnsOf(names));
          let [asOf, balance] = [TODAY, 5000];
          let played = projectLedger(indexRules(rules(balance)), table, asOf);
          let ahead = new LedgerDay(played, addDays(asOf, 1), todayOf(played));
          for (const { edits, balance: next, minutes } of changes) {
            asOf = (asOf + minutes * 60_000) as Instant;
            balance = next ?? balance;
            const changed = new Map(
              edits.map(([at, one]) => {
                const name = names[at % names.length] as LedgerName;
                return [name.id, { ...name, ...told(one) }] as const;
              }),
            );
            names = names.map((name) => changed.get(name.id) ?? name);
            const fresh = new NameTable(columnsOf(names.filter(({ id }) => changed.has(id))));
            table = new NameTable(mergeColumns(table, fresh, new Set(changed.keys())), table);
            expect(table.all()).toEqual(names);
            const index = indexRules(rules(balance));
            played = replayLedger(played, index, table, [...changed.keys()], asOf);
            expect(played.since).not.toBeNull();
            const whole = projectLedger(index, names, asOf);
            const days = AHEAD.map((days) => addDays(asOf, days));
            const own = days.map((day) => {
              ahead = new LedgerDay(played, day, ahead);
              return ahead;
            });
            const tomorrow = addDays(asOf, 1);
            const fromToday = new LedgerDay(played, tomorrow, todayOf(played));
            expect(said(played, [todayOf(played), fromToday, ...own])).toEqual(
              said(whole, [
                new LedgerDay(whole, asOf),
                new LedgerDay(whole, tomorrow),
                ...days.map((day) => new LedgerDay(whole, day)),
              ]),
            );
          }
        },
      ),
      { numRuns: 150 },
    );
  });

  const names = [nameOf({ minutes: 20_000, isDay: false, accountId: 1, setting: 'on', observed: null }, 1)];
  const earlier = projectLedger(indexRules(rules(5000)), names, TODAY);
  test.each([
    ['another price', indexRules(rules(5000, { prices: [RENEWAL] })), earlier.names, TODAY],
    ['another policy', indexRules(rules(5000, { policies: [{ ...GENERIC, lateDays: 3 }] })), earlier.names, TODAY],
    ['a new day', earlier.index, earlier.names, addDays(TODAY, 1)],
    ['an instant before', earlier.index, earlier.names, (TODAY - 1) as Instant],
    ['a name more', earlier.index, new NameTable(columnsOf([...names, nameWith('z.com', null)])), TODAY],
    ['another name in its place', earlier.index, new NameTable(columnsOf([nameWith('n01.com', null)])), TODAY],
  ] as const)('%s: the whole is played', (_, index, table, asOf) => {
    expect(replayLedger(earlier, index, table, [], asOf).since).toBeNull();
  });

  test('what nobody touched is not played again, and what was known of it is no longer kept', () => {
    const next = replayLedger(earlier, earlier.index, earlier.names, [], (TODAY + HOUR_MS) as Instant);
    expect([...(next.since?.anew ?? [])]).toEqual([0]);
    expect(next.charges.of(0)).toEqual(earlier.charges.of(0));
    expect(todayOf(next)).toBe(todayOf(next));
    expect(formatInstant(todayOf(next).day)).toBe(formatInstant((TODAY + HOUR_MS) as Instant));
  });
});
