import { describe, expect, test } from 'vitest';
import { judgeTerm, type TermEvidence } from '@/core/records';
import { instant, parseTermEnd } from '@/core/time';

describe('the registry’s provisional year', () => {
  const evidence = (more: Partial<TermEvidence>): TermEvidence => ({
    ledger: parseTermEnd('2026-11-06T10:15:00Z'),
    registry: parseTermEnd('2027-11-06T10:15:00Z'),
    statuses: ['autoRenewPeriod'],
    registrar: null,
    account: null,
    receipt: false,
    seenAt: instant('2026-11-24T09:00:00Z'),
    graceDays: 45,
    ...more,
  });
  test.each<[string, Partial<TermEvidence>, object]>([
    ['a receipt', { receipt: true }, { kind: 'renewed', by: 'receipt' }],
    ['the account says so', { account: parseTermEnd('2027-11-06T10:15:00Z') }, { kind: 'renewed', by: 'account' }],
    ['the account says no', { account: parseTermEnd('2026-11-06T10:15:00Z') }, { kind: 'not renewed', by: 'account' }],
    ['the registrar says so', { registrar: parseTermEnd('2027-11-06') }, { kind: 'renewed', by: 'registrar' }],
    ['the registrar says no', { registrar: parseTermEnd('2026-11-06') }, { kind: 'not renewed', by: 'registrar' }],
    [
      'the account outranks the registrar',
      { account: parseTermEnd('2026-11-06T10:15:00Z'), registrar: parseTermEnd('2027-11-06') },
      { kind: 'not renewed', by: 'account' },
    ],
    ['nothing decides: renewed or not looks the same', {}, { kind: 'undetermined' }],
    ['outside the late window it is simply later', { statuses: ['ok'] }, { kind: 'record later', days: 365 }],
    ['the same end', { registry: parseTermEnd('2026-11-06T10:15:00Z'), statuses: ['ok'] }, { kind: 'agrees' }],
    ['a bare date of the same day', { registry: parseTermEnd('2026-11-06'), statuses: ['ok'] }, { kind: 'agrees' }],
    [
      'earlier than the ledger',
      { registry: parseTermEnd('2025-11-06T10:15:00Z'), statuses: ['ok'] },
      { kind: 'record earlier', days: 365 },
    ],
    ['no end in the record', { registry: null }, { kind: 'unknown' }],
    [
      'past the grace window the extra year is a real one, and a real difference',
      { seenAt: instant('2027-01-24T09:00:00Z') },
      { kind: 'record later', days: 365, end: parseTermEnd('2027-11-06T10:15:00Z') },
    ],
    [
      'two years later, the last of them provisional: only the proven one is a difference',
      { ledger: parseTermEnd('2025-11-06T10:15:00Z') },
      { kind: 'record later', days: 365, end: parseTermEnd('2026-11-06T10:15:00Z') },
    ],
    ['one second apart', { registry: parseTermEnd('2026-11-06T10:15:01Z'), statuses: ['ok'] }, { kind: 'agrees' }],
    [
      'eleven hours apart, across midnight',
      {
        ledger: parseTermEnd('2026-11-06T20:00:00Z'),
        registry: parseTermEnd('2026-11-07T07:00:00Z'),
        statuses: ['ok'],
      },
      { kind: 'agrees' },
    ],
    [
      'a day and a half earlier is never zero days',
      { registry: parseTermEnd('2026-11-04T22:15:00Z'), statuses: ['ok'] },
      { kind: 'record earlier', days: 1 },
    ],
  ])('%s', (_why, more, verdict) => {
    expect(judgeTerm(evidence(more))).toMatchObject(verdict);
  });
});
