import { expect, test } from 'vitest';
import { GENERIC } from '@/core/ledger/sampleLedger';
import { lifecycleMarks } from '@/core/lifecycle';
import type { Ground, MovingFacts } from '@/core/moving';
import { type Day, instant } from '@/core/time';
import { bestDaySentence, mendsWords, savingSentence } from './movingWords';

const NOW = instant('2026-11-24T00:00:00Z');
const style = { zone: 'UTC', today: '2026-11-24' as Day };
const facts = (expires: string, more: Partial<MovingFacts> = {}): MovingFacts => ({
  policy: GENERIC,
  phase: 'term',
  marks: lifecycleMarks(
    { registeredAt: null, termEnd: { at: instant(expires), precision: 'instant' }, observed: null },
    GENERIC,
    { lateDays: 45, auctionDay: null },
  ),
  registeredAt: null,
  transferredAt: null,
  holderChangedAt: null,
  lock: false,
  statuses: [],
  recordAt: NOW,
  gracePaidAt: null,
  chargeAt: null,
  chargedEnd: null,
  ...more,
});

test.each<[string, MovingFacts]>([
  ['It can be transferred now, by 24 May 2027 so that it arrives before its term ends.', facts('2027-06-01T00:00:00Z')],
  [
    'It can be transferred now, by 25 Feb 2027 so that it arrives before the charge on 5 Mar 2027. Take the lock off first.',
    facts('2027-03-10T00:00:00Z', { chargeAt: instant('2027-03-05T00:00:00Z'), lock: true }),
  ],
  [
    'Best requested on 17 Jan 2027: sooner, it would not arrive before the charge on 28 Nov, and the year paid for would be lost.',
    facts('2026-12-03T00:00:00Z', { chargeAt: instant('2026-11-28T00:00:00Z') }),
  ],
  [
    'Best requested on 19 Dec, by 24 May 2027 so that it arrives before its term ends.',
    facts('2027-06-01T00:00:00Z', { registeredAt: instant('2026-10-20T00:00:00Z') }),
  ],
  [
    'It cannot be transferred: locked by the registry, ask the registrar why.',
    facts('2027-06-01T00:00:00Z', { statuses: ['serverTransferProhibited'] }),
  ],
  ['It cannot be transferred: past its term, renew it first.', facts('2026-11-20T00:00:00Z', { phase: 'late' })],
  [
    'It cannot be transferred: a change is pending at the registry, wait until that is settled.',
    facts('2027-06-01T00:00:00Z', { statuses: ['pendingUpdate'] }),
  ],
  ['It cannot be transferred: its term would run too far ahead, until 28 Feb 2029.', facts('2038-03-01T00:00:00Z')],
  [
    'It can be transferred now, by 24 May 2027 so that it arrives before its term ends. Whether its lock is on is not known.',
    facts('2027-06-01T00:00:00Z', { lock: null }),
  ],
  ['It cannot be transferred in time as it stands: renew it first.', facts('2026-11-29T00:00:00Z')],
  [
    'Whether it can be transferred is not known: set the end of its term first.',
    facts('2027-06-01T00:00:00Z', { phase: null, marks: null }),
  ],
])('%s', (sentence, given) => {
  expect(bestDaySentence(given, NOW, style)).toBe(sentence);
});

test('what a move saves is one sentence with both sums; what is not known is said', () => {
  const payment = { action: 'transfer', accountId: 2, years: 1, after: 0, isNow: false, minor: 990 } as const;
  const path = { totalMinor: 5510, nowMinor: 0, years: 5, payments: [payment] };
  const saving = { kind: 'saves', accountId: 2, years: 5, savedMinor: 2690, stayMinor: 8200, path } as const;
  expect(savingSentence(saving, 'USD', () => 'Wrackgate')).toBe(
    'Moved to Wrackgate it costs $26.90 less over 5 years: $55.10 in place of $82.00; the move itself costs $9.90.',
  );
  expect(savingSentence({ ...saving, kind: 'nothing cheaper', savedMinor: 0 }, 'USD', () => '')).toBe(
    'No account is cheaper for it over 5 years.',
  );
});

test.each<[string, Partial<Ground>]>([
  ['until 8 Dec', { mends: 'time', until: instant('2026-12-09T00:00:00Z') }],
  [
    'from 5 Mar 2027 until 23 Apr 2027',
    { mends: 'time', from: instant('2027-03-05T00:00:00Z'), until: instant('2027-04-24T00:00:00Z') },
  ],
  // What began before the day that is looked at has begun.
  [
    'until 23 Apr 2027',
    { mends: 'time', from: instant('2026-11-05T00:00:00Z'), until: instant('2027-04-24T00:00:00Z') },
  ],
  ['from 3 Jan 2027; then renew it first', { mends: 'renewal', from: instant('2027-01-03T00:00:00Z') }],
  ['take it off at the registrar first', { mends: 'owner' }],
  ['ask the registrar why', { mends: 'registrar' }],
  ['wait', { mends: 'time' }],
  ['nothing can be done', { mends: 'nobody' }],
])('what mends a ground: %s', (words, ground) => {
  const whole = { kind: 'pending', mends: 'time', from: null, until: null, losesYear: false, ...ground } as Ground;
  expect(mendsWords(whole, NOW, style)).toBe(words);
});
