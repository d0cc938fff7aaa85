import { expect, test } from 'vitest';
import { addDays, formatInstant, instant } from '@/core/time';
import { monthTicks } from './timeChart';

const FROM = instant('2026-11-24T09:12:00Z');
const days = (many: number, most?: number) =>
  monthTicks(FROM, addDays(FROM, many), most).map((at) => formatInstant(at).slice(0, 10));

test('an axis of days is marked where months begin', () => {
  expect(days(90)).toEqual(['2026-12-01', '2027-01-01', '2027-02-01']);
  expect(days(3)).toEqual([]);
});

test('more months than there is room for are marked evenly apart', () => {
  const two = days(730, 12);
  expect(two.length).toBeLessThanOrEqual(12);
  expect(two.slice(0, 3)).toEqual(['2026-12-01', '2027-02-01', '2027-04-01']);
});
