import { expect, test } from 'vitest';
import type { Instant } from '../time';
import { isFresh, isSessionOpen, SESSION, sessionEnd } from '.';

const began = 1_000_000 as Instant;
const after = (ms: number) => (began + ms) as Instant;

test('a session ends when it was not used for eight hours, to the millisecond', () => {
  const times = { beganAt: began, seenAt: after(1000) };
  expect(sessionEnd(times)).toBe(after(1000 + SESSION.idleMs));
  expect(isSessionOpen(times, after(1000 + SESSION.idleMs - 1))).toBe(true);
  expect(isSessionOpen(times, after(1000 + SESSION.idleMs))).toBe(false);
});

test('however much it is used, it ends after a week', () => {
  const times = { beganAt: began, seenAt: after(SESSION.absoluteMs - 1) };
  expect(isSessionOpen(times, after(SESSION.absoluteMs - 1))).toBe(true);
  expect(isSessionOpen(times, after(SESSION.absoluteMs))).toBe(false);
});

test('for a quarter of an hour after signing in ways to sign in may be changed', () => {
  const times = { beganAt: began, seenAt: after(SESSION.freshMs) };
  expect(isFresh(times, after(SESSION.freshMs - 1))).toBe(true);
  expect(isFresh(times, after(SESSION.freshMs))).toBe(false);
});
