import fc from 'fast-check';
import { expect, test } from 'vitest';
import { NO_OFFER_FACTS, valuing } from '../prospects';
import { bestSet, namesInDanger, RESCUE_DAYS } from '../rescue';
import { addDays, formatInstant, type Instant } from '../time';
import {
  contradictionOf,
  contradictionsOn,
  indexRules,
  LedgerDay,
  type LedgerName,
  PURPOSES,
  projectLedger,
  rowsNear,
  TODAY_DAYS,
  todayLists,
  worthIn,
} from './index';
import { GENERIC, nameWith, QUAYMARK, rulesWith, TODAY } from './sampleLedger';

const RULES = rulesWith({
  accounts: [
    { ...QUAYMARK, balanceMinor: 1200, retryDays: [2], leadDays: 30 },
    { ...QUAYMARK, id: 2, label: 'Wrackgate', yearsPerCharge: 2, auctionDay: 30, balanceMinor: null },
  ],
  policies: [
    { ...GENERIC, redemptionDays: 120 },
    { ...GENERIC, ending: 'uk', lateDays: 90, redemptionDays: 0, pendingDeleteDays: 0 },
  ],
});

const soon = fc.integer({ min: -20, max: 90 }).map((days) => addDays(TODAY, days));
const ledgers = fc
  .array(
    fc.record({
      days: fc.option(fc.integer({ min: -130, max: 160 }), { nil: null }),
      ending: fc.constantFrom('com', 'uk'),
      accountId: fc.constantFrom(1, 2),
      setting: fc.constantFrom<LedgerName['setting']>('on', 'on', 'off', 'stalled', 'unknown'),
      standing: fc.constantFrom<LedgerName['standing']>('believed', 'confirmed'),
      purpose: fc.constantFrom(...PURPOSES),
      neverLost: fc.boolean(),
      confirmMailBy: fc.option(soon, { nil: null, freq: 8 }),
      observed: fc.option(
        fc.record({
          phase: fc.constantFrom(
            'registered' as const,
            'redemption' as const,
            'pending restore' as const,
            'pending delete' as const,
            'pending transfer' as const,
          ),
          at: fc.integer({ min: -90, max: 0 }).map((days): Instant => addDays(TODAY, days)),
        }),
        { nil: null, freq: 4 },
      ),
    }),
    { minLength: 1, maxLength: 20 },
  )
  .map((rows) => {
    const names = rows.map(({ days, ...more }, i) =>
      nameWith(
        `n${String(i).padStart(2, '0')}.${more.ending}`,
        days === null ? null : formatInstant(addDays(TODAY, days)),
        more,
      ),
    );
    return new LedgerDay(projectLedger(indexRules(RULES), names, TODAY), TODAY);
  });

test('the rows that are near make the same lists of Today and of Rescue as all of them', () => {
  const worth = worthIn(RULES, TODAY);
  fc.assert(
    fc.property(ledgers, fc.integer({ min: 0, max: 9000 }), (ledger, minor) => {
      const [all, today, rescue] = [ledger.everyRow(), rowsNear(ledger, TODAY_DAYS), rowsNear(ledger, RESCUE_DAYS)];
      expect(todayLists(today, TODAY, worth, 'UTC')).toEqual(todayLists(all, TODAY, worth, 'UTC'));
      const judge = valuing(ledger, { facts: NO_OFFER_FACTS, assumptions: RULES.assumptions, view: null });
      expect(namesInDanger(rescue, TODAY, judge, worth)).toEqual(namesInDanger(all, TODAY, judge, worth));
      const budget = { currency: 'USD', minor };
      expect(bestSet(rescue, TODAY, judge, budget)).toEqual(bestSet(all, TODAY, judge, budget));
    }),
    { numRuns: 300 },
  );
});

test('a name far from everything is not among them', () => {
  const names = [
    nameWith('far.com', formatInstant(addDays(TODAY, 300)), { registered: null }),
    nameWith('near.com', formatInstant(addDays(TODAY, 30)), { registered: null }),
  ];
  const ledger = new LedgerDay(projectLedger(indexRules(RULES), names, TODAY), TODAY);
  expect(rowsNear(ledger, TODAY_DAYS).map(({ name }) => name.ascii)).toEqual(['near.com']);
});

test('contradictions are those of every row, the first so many', () => {
  fc.assert(
    fc.property(ledgers, fc.integer({ min: 0, max: 12 }), (ledger, limit) => {
      const { accounts } = ledger.projection.index;
      const expected = ledger.everyRow().flatMap((row) => {
        const contradiction = contradictionOf(row, accounts.get(row.name.accountId), TODAY);
        return contradiction ? [{ row, contradiction }] : [];
      });
      expect(contradictionsOn(ledger, limit)).toEqual(expected.slice(0, limit));
    }),
    { numRuns: 300 },
  );
});
