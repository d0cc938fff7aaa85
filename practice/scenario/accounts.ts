import { PLAIN_PRICE, type Price, readCondition } from '@/core/pricing';
import { addDays, type Day, dayOf, type Instant } from '@/core/time';
import type { AccountDraft } from '@/database/accounts';

/** The month of an instant, `YYYY-MM`. */
function month(at: Instant): string {
  return dayOf(at).slice(0, 7);
}

/** The office's five accounts, each with rules and troubles of its own. Every registrar is invented. */
// Long because it is a list: each account with its rules.
export function demoAccounts(now: Instant): AccountDraft[] {
  const base = {
    auctionDay: null,
    lateFeeMinor: 0,
    yearsPerCharge: 1,
    retryDays: [],
    refunds: false,
    taxPercent: 0,
    switchHours: 72,
    rulesKnown: true,
    holder: 'Harbour Office',
    holderMail: 'names@harbour-office.test',
    notes: '',
    balanceAt: addDays(now, -3),
  };
  return [
    {
      ...base,
      label: 'Quaymark',
      registrar: 'Quaymark Names BV',
      currency: 'USD',
      leadDays: 5,
      lateDays: 45,
      retryDays: [2],
      refunds: true,
      balanceMinor: 18_640,
      paymentMethods: [
        { kind: 'balance', label: 'balance', endsMonth: null },
        { kind: 'card', label: 'office card', endsMonth: month(addDays(now, -32)) },
      ],
      notes: 'The card on file has ended; the balance is topped up by hand.',
    },
    {
      ...base,
      label: 'Wrackgate',
      registrar: 'Wrackgate Registry Services',
      currency: 'USD',
      leadDays: 5,
      lateDays: 45,
      balanceMinor: null,
      balanceAt: null,
      paymentMethods: [{ kind: 'card', label: 'blue card', endsMonth: month(addDays(now, 20)) }],
    },
    {
      ...base,
      label: 'Fernhithe',
      registrar: 'Fernhithe & Daughters',
      currency: 'USD',
      leadDays: 0,
      lateDays: 30,
      lateFeeMinor: 350,
      balanceMinor: 4_120,
      paymentMethods: [{ kind: 'balance', label: 'balance', endsMonth: null }],
    },
    {
      ...base,
      label: 'Bollard',
      registrar: 'Bollard Domains eG',
      currency: 'EUR',
      leadDays: 15,
      lateDays: 10,
      auctionDay: 6,
      taxPercent: 19,
      balanceMinor: 9_450,
      retryDays: [10, 5],
      paymentMethods: [
        { kind: 'balance', label: 'balance', endsMonth: null },
        { kind: 'bank', label: 'bank order', endsMonth: null },
      ],
    },
    {
      ...base,
      label: 'Larkhythe',
      registrar: 'Larkhythe Ltd',
      currency: 'GBP',
      leadDays: 28,
      lateDays: 0,
      yearsPerCharge: 1,
      balanceMinor: null,
      balanceAt: null,
      paymentMethods: [{ kind: 'wallet', label: 'wallet', endsMonth: null }],
      notes: 'No late window (grace period) at all here: what is not paid is deleted on the day.',
    },
  ];
}

type ListLine = readonly [ending: string, renew: number, register: number, restore: number];

/** What each account charges: ending, renewal, registration, restore, in minor units of its currency. */
const LISTS: Readonly<Record<string, readonly ListLine[]>> = {
  Quaymark: [
    ['com', 1118, 1118, 11_380],
    ['net', 1290, 1290, 13_100],
    ['org', 1240, 990, 12_400],
    ['co', 2900, 1200, 29_000],
    ['me', 1890, 590, 18_900],
  ],
  Wrackgate: [
    ['com', 1118, 999, 11_380],
    ['net', 1290, 1250, 13_100],
    ['org', 1200, 1200, 12_200],
    ['co', 2900, 2900, 29_000],
    ['ai', 7950, 7950, 60_000],
  ],
  Fernhithe: [
    ['com', 1118, 1118, 11_380],
    ['org', 1200, 1200, 12_200],
    ['io', 4800, 3600, 48_000],
    ['net', 1350, 1350, 13_500],
    ['uk', 840, 840, 0],
  ],
  Bollard: [
    ['com', 1090, 890, 9_900],
    ['de', 690, 690, 4_500],
    ['eu', 820, 820, 6_000],
    ['nl', 790, 790, 4_000],
    ['net', 1240, 1240, 9_900],
  ],
  Larkhythe: [
    ['uk', 700, 700, 0],
    ['com', 990, 790, 9_000],
    ['me', 1450, 1450, 11_000],
  ],
};

/** What a year of privacy costs at each account, in minor units of its currency. */
const PRIVACY: Readonly<Record<string, number>> = {
  Quaymark: 0,
  Wrackgate: 0,
  Fernhithe: 0,
  Bollard: 0,
  Larkhythe: 400,
};

/** The price list of one demo account. Country endings carry no registry fee, nor do lists in other currencies. */
export function demoPrices(label: string, accountId: number, currency: string, from: Day): Price[] {
  return (LISTS[label] ?? []).flatMap(([ending, renew, register, restore]): Price[] => {
    const base = {
      accountId,
      nameId: null,
      ending,
      currency,
      ...PLAIN_PRICE,
      from,
      origin: 'list' as const,
      source: 'its page of prices',
    };
    const rows: Price[] = [
      {
        ...base,
        action: 'renew',
        yearMinor: renew,
        termTotals: ending === 'org' ? { '3': renew * 3 - 300 } : null,
      },
      {
        ...base,
        action: 'register',
        yearMinor: renew,
        firstYearMinor: register === renew ? null : register,
        firstYearCondition: register === renew ? null : readCondition('one year only'),
      },
      { ...base, action: 'transfer', yearMinor: renew },
      { ...base, action: 'privacy', yearMinor: PRIVACY[label] ?? 0, feeIncluded: true },
    ];
    if (restore > 0 && ending !== 'net') rows.push({ ...base, action: 'restore', yearMinor: restore });
    return rows;
  });
}
