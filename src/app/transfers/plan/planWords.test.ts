import { expect, test } from 'vitest';
import { type Day, instant } from '@/core/time';
import type { MoveView, PlanView } from '../../frame/views';
import { moveNotes, planSentence, savedWords, waveDay } from './planWords';

const style = { zone: 'UTC', today: '2026-11-24' as Day };
const money = (minor: number) => `$${(minor / 100).toFixed(2)}`;
const move = { isLocked: false, chargedBefore: null, by: null } as MoveView;

test('a plan is one sentence: how many, on how many days, for what, and what that saves', () => {
  const wave = { moves: [move, move] };
  const plan = (waves: readonly object[], savedMinor: number) =>
    planSentence({ waves, costMinor: 2276, savedMinor } as unknown as PlanView, 5, money);
  expect(plan([wave], 1500)).toBe('Move 2 names on one day for $22.76: saves $15.00 over 5 years, $3.00 a year.');
  expect(plan([wave, { moves: [move] }], -1500)).toBe(
    'Move 3 names on 2 days for $22.76: costs more by $15.00 over 5 years, $3.00 a year.',
  );
  expect(plan([], 0)).toBe('No transfer saves anything here.');
});

test('what is saved in one year is not said twice', () => {
  expect(savedWords(300, 1, money)).toBe('saves $3.00 over one year');
});

test('what is to be known of a move before it is requested', () => {
  const by = instant('2027-02-25T00:00:00Z');
  const chargedBefore = { minor: 1138, currency: 'USD' };
  expect(moveNotes(move, style)).toBe('');
  expect(moveNotes({ ...move, isLocked: true, chargedBefore, by }, style)).toBe(
    'its lock comes off first; charged $11.38 before; by 25 Feb 2027',
  );
});

test('a wave of today says so', () => {
  expect([instant('2026-11-24T09:00:00Z'), instant('2026-12-03T09:00:00Z')].map((at) => waveDay(at, style))).toEqual([
    'Today',
    '3 Dec',
  ]);
});
