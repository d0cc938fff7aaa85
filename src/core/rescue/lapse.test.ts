import { describe, expect, test } from 'vitest';
import { amount } from '../money';
import { addDays, type Instant, instant } from '../time';
import { costsByDay, timelineOf } from './index';

const END = instant('2026-11-06T10:15:00Z');
const marks = (lateDays: number, redemptionDays: number) => ({
  refundableUntil: null,
  termEnd: END,
  auction: null,
  deletion: addDays(END, lateDays),
  restoreReportDue: null,
  redemptionEnd: addDays(END, lateDays + redemptionDays),
  release: addDays(END, lateDays + redemptionDays + 5),
});
const costs = {
  renewal: amount(1138, 'USD'),
  lateFee: null,
  lateRenewal: amount(1138, 'USD'),
  restore: amount(12_518, 'USD'),
  perYear: amount(1138, 'USD'),
  restoreRuleOfThumb: false,
};
const told = (list: ReturnType<typeof costsByDay>) => list.map(({ by, cost }) => [by, cost?.minor ?? null]);

describe('what each day would have cost', () => {
  test('a renewal, a late one, a restore, and then nothing', () => {
    expect(told(costsByDay(addDays(END, -60), marks(45, 30), costs))).toEqual([
      ['renewal', 1138],
      ['late renewal', 1138],
      ['restore', 12_518],
      ['nothing', null],
    ]);
  });

  test('with a late fee', () => {
    const fee = { ...costs, lateFee: amount(350, 'USD'), lateRenewal: amount(1488, 'USD') };
    expect(told(costsByDay(addDays(END, -60), marks(30, 30), fee))[1]).toEqual(['late renewal', 1488]);
  });

  test('a phase of no length is left out: no late window, no redemption', () => {
    expect(told(costsByDay(addDays(END, -60), marks(0, 30), costs)).map(([by]) => by)).toEqual([
      'renewal',
      'restore',
      'nothing',
    ]);
    expect(told(costsByDay(addDays(END, -60), marks(90, 0), costs)).map(([by]) => by)).toEqual([
      'renewal',
      'late renewal',
      'nothing',
    ]);
  });

  test('every stretch begins where the one before it ends', () => {
    const list = costsByDay(addDays(END, -60), marks(45, 30), costs);
    for (let i = 1; i < list.length; i += 1) expect(list[i]?.from).toBe(list[i - 1]?.until);
  });
});

test('events come in order, and what two sources tell alike is told once', () => {
  const at = (days: number) => addDays(END, days) as Instant;
  expect(
    timelineOf([
      { at: at(3), kind: 'step', text: 'later' },
      { at: at(1), kind: 'act', text: 'the same' },
      { at: at(1), kind: 'act', text: 'the same' },
      { at: at(1), kind: 'failure', text: 'another' },
    ]).map(({ text }) => text),
  ).toEqual(['the same', 'another', 'later']);
});
