import fc from 'fast-check';
import { describe, expect, test, vi } from 'vitest';
import { columnsOf, everyRow, indexRules, LedgerDay, NameTable, projectLedger, replayLedger } from '@/core/ledger';
import { nameWith, QUAYMARK, rulesWith, TODAY } from '@/core/ledger/sampleLedger';
import { addDays, formatInstant } from '@/core/time';
import { DaysAhead } from './daysAhead';

const NAMES = Array.from({ length: 30 }, (_, i) =>
  nameWith(`n${String(i).padStart(2, '0')}.com`, formatInstant(addDays(TODAY, i * 23 - 90)), {
    setting: i % 3 ? 'on' : 'off',
  }),
);
const table = new NameTable(columnsOf(NAMES));
const index = indexRules(rulesWith({ accounts: [{ ...QUAYMARK, balanceMinor: 9000 }] }));
const play = () => projectLedger(index, table, TODAY);
const columns = (day: LedgerDay) =>
  [day.phase, day.setting, day.termEnd, day.deadlineAt, day.deadlineKind].map((column) => [...column]);

describe('the later day that is looked at', () => {
  test('however the date moves, what was foreseen or read anew is what that day is', () => {
    const move = fc.record({
      days: fc.constantFrom(7, 7, 7, 1, -7, -7, 90),
      foresee: fc.boolean(),
      changed: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(move, { minLength: 1, maxLength: 14 }), (moves) => {
        let projection = play();
        const ahead = new DaysAhead();
        let shown: LedgerDay | null = null;
        let days = 30;
        for (const { days: step, foresee, changed } of moves) {
          days = Math.min(700, Math.max(1, days + step));
          if (changed) projection = replayLedger(projection, index, table, [NAMES[3]?.id ?? 0], TODAY);
          const day = addDays(TODAY, days);
          const before: readonly [LedgerDay, number[][]] | null = shown && [shown, columns(shown)];
          const read: LedgerDay = ahead.on(projection, day, shown);
          expect(ahead.on(projection, day, shown)).toBe(read);
          expect(columns(read)).toEqual(columns(new LedgerDay(projection, day)));
          expect(read.everyRow()).toEqual(everyRow(projection, day));
          // What is on screen stays what it was until something else is shown.
          if (before && before[0] !== read) expect(columns(before[0])).toEqual(before[1]);
          shown = read;
          if (foresee) ahead.foresee(shown);
          expect(columns(read)).toEqual(columns(new LedgerDay(projection, day)));
        }
      }),
    );
  });

  test('after the first step, and after two equal ones, the next day is there when it is asked for; after uneven ones none is read', () => {
    const [projection, ahead] = [play(), new DaysAhead()];
    let shown: LedgerDay | null = null;
    const move = (days: number) => {
      shown = ahead.on(projection, addDays(TODAY, days), shown);
      const before: LedgerDay = shown;
      const read = vi.spyOn(projection.charges, 'first');
      ahead.foresee(shown);
      const isForeseen = read.mock.calls.length > 0;
      read.mockRestore();
      expect(shown).toBe(before);
      return isForeseen;
    };
    expect([60, 120, 180, 240].map(move)).toEqual([true, true, true, true]);
    expect([400, 460, 520, 580].map(move)).toEqual([false, false, true, true]);
    // Back to today there is nothing ahead.
    expect([480, 380, 280, 180, 80].map(move)).toEqual([false, true, true, true, false]);
  });

  test('a day that was prepared is there when it is asked for first, and stands for the ledger it was read of only', () => {
    const [projection, ahead] = [play(), new DaysAhead()];
    const week = addDays(TODAY, 7);
    const prepared = ahead.prepare(projection, week);
    expect(columns(prepared)).toEqual(columns(new LedgerDay(projection, week)));
    expect(ahead.on(projection, week, null)).toBe(prepared);
    const later = play();
    const stale = new DaysAhead();
    stale.prepare(projection, week);
    expect(stale.on(later, week, null).projection).toBe(later);
  });
});
