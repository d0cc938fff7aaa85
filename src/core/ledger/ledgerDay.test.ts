import fc from 'fast-check';
import { expect, test } from 'vitest';
import {
  indexRules,
  LedgerDay,
  type LedgerName,
  projectLedger,
  todayInSteps,
  todayOf,
  totalsInSteps,
  totalsOf,
} from '@/core/ledger';
import { PHASES } from '@/core/lifecycle';
import { addDays, type Day, formatInstant } from '@/core/time';
import { GENERIC, nameWith, QUAYMARK, RENEWAL, rulesWith, TODAY } from './sampleLedger';

const RULES = rulesWith({
  accounts: [
    { ...QUAYMARK, balanceMinor: 5000, retryDays: [2] },
    { ...QUAYMARK, id: 2, label: 'Wrackgate', lateFeeMinor: 350, auctionDay: 30, balanceMinor: null },
  ],
  policies: [GENERIC, { ...GENERIC, ending: 'uk', lateDays: 90, redemptionDays: 0, pendingDeleteDays: 0 }],
  // A price that rises between: what a name costs before its deadline is that of the day looked at.
  prices: [
    RENEWAL,
    { ...RENEWAL, yearMinor: 1300, from: '2027-05-01' as Day },
    { ...RENEWAL, accountId: 2, yearMinor: 900 },
    { ...RENEWAL, accountId: 2, action: 'restore', yearMinor: 9000 },
  ],
});

const portfolio = fc
  .array(
    fc.record({
      days: fc.option(fc.integer({ min: -120, max: 760 }), { nil: null }),
      isDay: fc.boolean(),
      ending: fc.constantFrom('com', 'uk'),
      accountId: fc.constantFrom(1, 2),
      setting: fc.constantFrom<LedgerName['setting']>('on', 'on', 'off', 'stalled', 'unknown'),
      observed: fc.option(
        fc.record({
          phase: fc.constantFrom('redemption' as const, 'pending restore' as const, 'pending transfer' as const),
          at: fc.integer({ min: -20, max: 0 }).map((days) => addDays(TODAY, days)),
        }),
        { nil: null, freq: 6 },
      ),
    }),
    { minLength: 1, maxLength: 15 },
  )
  .map((rows) =>
    rows.map(({ days, isDay, ...more }, i) => {
      const end = days === null ? null : formatInstant(addDays(TODAY, days));
      return nameWith(`n${String(i).padStart(2, '0')}.${more.ending}`, end && (isDay ? end.slice(0, 10) : end), more);
    }),
  );

test('today read some names after the others is today read at once', () => {
  const columns = ({ phase, setting, termEnd, deadlineAt, deadlineKind }: LedgerDay) =>
    [phase, setting, termEnd, deadlineAt, deadlineKind].map((column) => [...column]);
  fc.assert(
    fc.property(portfolio, fc.integer({ min: 1, max: 16 }), (names, step) => {
      const projection = projectLedger(indexRules(RULES), names, TODAY);
      const steps = todayInSteps(projection, step);
      let taken = 0;
      let today = steps.next();
      for (; !today.done; today = steps.next()) taken += 1;
      expect(taken).toBe(Math.ceil(names.length / step));
      const whole = new LedgerDay(projection, TODAY);
      expect(columns(today.value)).toEqual(columns(whole));
      expect(today.value.everyRow()).toEqual(whole.everyRow());
      // From here on it is today of that projection.
      expect(todayOf(projection)).toBe(today.value);
      const later = addDays(TODAY, 40);
      expect(columns(new LedgerDay(projection, later, today.value))).toEqual(columns(new LedgerDay(projection, later)));
    }),
  );
});

test('on any day the columns say what the rows say, however the date was moved there', () => {
  fc.assert(
    fc.property(
      portfolio,
      fc.array(fc.integer({ min: 0, max: 730 }), { minLength: 1, maxLength: 6 }),
      (names, days) => {
        const projection = projectLedger(indexRules(RULES), names, TODAY);
        let before: LedgerDay | null = null;
        let passed: LedgerDay | null = null;
        for (const ahead of days) {
          const day = addDays(TODAY, ahead);
          const moved: LedgerDay = new LedgerDay(projection, day, before, passed);
          for (const row of moved.everyRow()) {
            const { place, phase, termEnd, setting, deadline, costs } = row;
            expect(PHASES[(moved.phase[place] as number) - 1] ?? null).toBe(phase);
            expect(moved.termEnd[place]).toBe(termEnd === null ? Number.NaN : termEnd.at);
            expect(['on', 'off', 'stalled', 'unknown'][moved.setting[place] as number]).toBe(setting);
            expect(moved.deadlineAt[place]).toBe(deadline?.at ?? Number.POSITIVE_INFINITY);
            expect(moved.before(place)).toEqual(deadline?.before ?? null);
            expect(moved.costs(place)).toEqual(costs);
          }
          passed = before;
          before = moved;
        }
      },
    ),
    { numRuns: 200 },
  );
});

test('another ledger’s day is not taken over', () => {
  const of = (setting: LedgerName['setting']) =>
    projectLedger(indexRules(RULES), [nameWith('a.com', '2026-12-09T00:00:00Z', { setting })], TODAY);
  const off = new LedgerDay(of('off'), addDays(TODAY, 30));
  const on = new LedgerDay(of('on'), addDays(TODAY, 31), off);
  expect(PHASES[(off.phase[0] as number) - 1]).toBe('late');
  expect(PHASES[(on.phase[0] as number) - 1]).toBe('term');
});

test('sums of some names join to the sums of all, on any day', () => {
  fc.assert(
    fc.property(portfolio, fc.integer({ min: 0, max: 700 }), fc.nat(), (names, ahead, cut) => {
      const ledger = new LedgerDay(projectLedger(indexRules(RULES), names, TODAY), addDays(TODAY, ahead));
      const all = Int32Array.from(names, (_, place) => place);
      const at = cut % (names.length + 1);
      const [first, second, whole] = [all.slice(0, at), all.slice(at), all].map((places) => totalsOf(ledger, places));
      for (const key of ['names', 'lost', 'unpriced'] as const)
        expect((first?.[key] ?? 0) + (second?.[key] ?? 0)).toBe(whole?.[key]);
      for (const key of ['spent', 'perYear', 'renewal', 'charged30', 'charged90'] as const) {
        const sum = (some: typeof first) => (some?.[key] ?? []).reduce((total, { minor }) => total + minor, 0);
        expect(sum(first) + sum(second)).toBe(sum(whole));
      }
    }),
  );
});

test('sums that are added up a part at a time come to the same', () => {
  const names = Array.from({ length: 60 }, (_, i) =>
    nameWith(`n${String(i).padStart(2, '0')}.com`, formatInstant(addDays(TODAY, i * 9 - 100)), {
      accountId: 1 + (i % 2),
      setting: 'on',
    }),
  );
  const ledger = new LedgerDay(projectLedger(indexRules(RULES), names, TODAY), addDays(TODAY, 40));
  const few = ledger.projection.names.places;
  // As many places as take three steps: each name a thousand times.
  const many = Int32Array.from({ length: 60_000 }, (_, i) => few[i % 60] as number);
  const steps = [...totalsInSteps(ledger, many)];
  expect(steps.map((sums) => sums.names)).toEqual([25_000, 50_000, 60_000]);
  expect(steps.at(-1)).toEqual(totalsOf(ledger, many));
  expect([...totalsInSteps(ledger, new Int32Array(0))]).toEqual([totalsOf(ledger, new Int32Array(0))]);
});
