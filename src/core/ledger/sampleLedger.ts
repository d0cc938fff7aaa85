import type { Policy } from '../lifecycle';
import { USUAL_ASSUMPTIONS } from '../odds';
import { PLAIN_PRICE, type Price } from '../pricing';
import { type Day, type Instant, instant, parseTermEnd } from '../time';
import type { LedgerAccount, LedgerName, LedgerRules } from './index';

/** The day on which the examples take place. */
export const TODAY: Instant = instant('2026-11-24T00:00:00Z');

const range = { least: 1, greatest: 10, step: 1 };
const one = { least: 1, greatest: 1, step: 1 };

/** Generic endings. Notions: RFC 3915 section 3; days: common practice, no source; ceiling: registry contracts. */
export const GENERIC: Policy = {
  ending: '*',
  lateDays: 45,
  redemptionDays: 30,
  pendingRestoreDays: 7,
  pendingDeleteDays: 5,
  refundableDays: 5,
  terms: { register: range, renew: range, transfer: one, restore: one },
  transferYears: 1,
  transferLockDays: 60,
  holderLockDays: 60,
  letters: null,
  ceilingYears: 10,
  yearlyFee: true,
  source: 'common practice',
  sourceNote: '',
  sourceDate: '2026-11-01' as Day,
  verified: true,
};

export const QUAYMARK: LedgerAccount = {
  id: 1,
  label: 'Quaymark',
  registrar: 'Quaymark Names BV',
  currency: 'USD',
  leadDays: 5,
  lateDays: 45,
  switchHours: 72,
  lateFeeMinor: 0,
  taxPercent: 0,
  linked: false,
  auctionDay: null,
  yearsPerCharge: 1,
  retryDays: [],
  refunds: false,
  paymentMethods: [{ kind: 'balance', label: 'balance', endsMonth: null }],
  balanceMinor: 100_000,
};

export const RENEWAL: Price = {
  accountId: 1,
  nameId: null,
  ending: 'com',
  action: 'renew',
  currency: 'USD',
  yearMinor: 1138,
  ...PLAIN_PRICE,
  feeIncluded: true,
  from: '2024-01-01' as Day,
  origin: 'list',
};

export function rulesWith(more: Partial<LedgerRules> = {}): LedgerRules {
  return {
    accounts: [QUAYMARK],
    policies: [GENERIC],
    prices: [RENEWAL],
    rates: [],
    rises: [],
    homeCurrency: 'USD',
    zone: 'UTC',
    assumptions: USUAL_ASSUMPTIONS,
    fees: [{ from: '2025-07-01' as Day, minor: 20, currency: 'USD', source: 'memory' }],
    ...more,
  };
}

let last = 0;

export function nameWith(ascii: string, expires: string | null, more: Partial<LedgerName> = {}): LedgerName {
  last += 1;
  return {
    id: last,
    ascii,
    unicode: ascii,
    ending: 'com',
    accountId: 1,
    registered: null,
    termEnd: expires === null ? null : parseTermEnd(expires),
    observed: null,
    setting: 'off',
    standing: 'believed',
    settingSince: null,
    requested: null,
    requestedLock: null,
    requestedPrivacy: null,
    stalledBy: null,
    confirmMailBy: null,
    purpose: 'hold',
    neverLost: false,
    lock: null,
    privacy: null,
    transferred: null,
    holderChanged: null,
    holderLockWaived: false,
    gracePaid: null,
    statuses: [],
    tags: [],
    notes: '',
    asking: null,
    spent: [],
    checkedAt: null,
    rescue: null,
    saleChance: null,
    bestOffer: null,
    ...more,
  };
}
