import { afterEach, beforeEach, expect, test } from 'vitest';
import { clockFrom, deps } from './deps';

const kept = globalThis as { nameLedgerDeps?: unknown };
let before: unknown;
beforeEach(() => {
  before = kept.nameLedgerDeps;
  kept.nameLedgerDeps = undefined;
});
afterEach(() => {
  kept.nameLedgerDeps = before;
});

test('whoever asks before they are made is told so: a process made in passing would be without its threads', () => {
  expect(() => deps()).toThrow('have not been made yet');
  const made = { database: null };
  kept.nameLedgerDeps = made;
  expect(deps()).toBe(made);
});

test('a clock that is held still has to be an instant (RFC 3339)', () => {
  expect(clockFrom('2026-11-24T09:12:00Z')()).toBe(Date.UTC(2026, 10, 24, 9, 12));
  expect(() => clockFrom('yesterday')).toThrow('not an RFC 3339 instant');
  expect(Math.abs(clockFrom(undefined)() - Date.now())).toBeLessThan(1000);
});
