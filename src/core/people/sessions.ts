import type { Instant } from '../time';

const MINUTE_MS = 60_000;

/**
 * How long a sign-in holds: without being used, at the most, and for what only somebody who has just signed in may do.
 * Source: OWASP ASVS 5 V7.1.1 and V7.3 ask for both ends; the figures are ours.
 */
export const SESSION = {
  idleMs: 8 * 60 * MINUTE_MS,
  absoluteMs: 7 * 24 * 60 * MINUTE_MS,
  freshMs: 15 * MINUTE_MS,
} as const;

/** When somebody signed in, and was last heard of. */
export interface SessionTimes {
  readonly beganAt: Instant;
  readonly seenAt: Instant;
}

/** When a session ends if nothing more is heard. */
export function sessionEnd({ beganAt, seenAt }: SessionTimes): Instant {
  return Math.min(beganAt + SESSION.absoluteMs, seenAt + SESSION.idleMs) as Instant;
}

/** Whether a session holds at `asOf`; at its end it does not. */
export function isSessionOpen(times: SessionTimes, asOf: Instant): boolean {
  return asOf < sessionEnd(times);
}

/** Whether somebody has signed in so lately that ways to sign in may be changed. */
export function isFresh({ beganAt }: SessionTimes, asOf: Instant): boolean {
  return asOf < beganAt + SESSION.freshMs;
}
