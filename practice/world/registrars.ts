import { monthOf } from './calendar';
import type { Action, Customer, PracticePaymentMethod, Registrar } from './types';

const DAY = 86_400_000;
type PriceLine = readonly [ending: string, register: number, renew: number, restore: number];

function priceList(...lines: readonly PriceLine[]): Registrar['prices'] {
  return Object.fromEntries(
    lines.map(([ending, register, renew, restore]): [string, Record<Action, number>] => [
      ending,
      { register, renew, transfer: renew, restore },
    ]),
  );
}

/** The invented registrars of the practice world: no two follow the same rules. Prices hold the yearly registry fee. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: a list of registrars with their rules
export function practiceRegistrars(now: number): Registrar[] {
  const base = {
    lateFeeMinor: 0,
    auctionDay: null,
    retryDays: [],
    yearsPerCharge: 1,
    onNeedsPaymentDays: null,
    offTakesHours: 0,
    refundDays: 0,
    taxPercent: 0,
    privacyMinor: 0,
    asksHolderAfterTransfer: false,
    promotions: [],
  } as const;
  return [
    {
      ...base,
      id: 'quaymark',
      title: 'Quaymark Names BV',
      currency: 'USD',
      leadDays: 5,
      lateDays: 45,
      refundDays: 5,
      retryDays: [2],
      prices: priceList(
        ['com', 1138, 1138, 11_380],
        ['net', 1310, 1310, 13_100],
        ['org', 1090, 1340, 12_400],
        ['co', 1200, 2900, 29_000],
        ['me', 590, 1890, 18_900],
        ['shop', 320, 3400, 34_000],
      ),
      promotions: [
        {
          code: 'HARBOUR10',
          percent: 10,
          actions: ['renew'],
          endings: ['com', 'net'],
          mostYears: 2,
          until: now + 60 * DAY,
        },
      ],
    },
    {
      ...base,
      id: 'wrackgate',
      asksHolderAfterTransfer: true,
      title: 'Wrackgate Registry Services',
      currency: 'USD',
      leadDays: 5,
      lateDays: 45,
      onNeedsPaymentDays: 31,
      prices: priceList(
        ['com', 1019, 1138, 11_380],
        ['net', 1270, 1310, 13_100],
        ['org', 1220, 1220, 12_200],
        ['co', 2900, 2900, 29_000],
        ['ai', 7950, 7950, 60_000],
      ),
    },
    {
      ...base,
      id: 'fernhithe',
      title: 'Fernhithe & Daughters',
      currency: 'USD',
      leadDays: 0,
      lateDays: 30,
      lateFeeMinor: 350,
      yearsPerCharge: 'as bought',
      prices: priceList(
        ['com', 1138, 1138, 11_380],
        ['org', 1220, 1220, 12_200],
        ['io', 3600, 4800, 48_000],
        ['net', 1370, 1370, 13_500],
        ['uk', 840, 840, 0],
      ),
    },
    {
      ...base,
      id: 'bollard',
      title: 'Bollard Domains eG',
      currency: 'EUR',
      leadDays: 15,
      lateDays: 10,
      auctionDay: 6,
      retryDays: [10, 5],
      taxPercent: 19,
      offTakesHours: 48,
      prices: priceList(
        ['com', 890, 1090, 9_900],
        ['de', 690, 690, 4_500],
        ['eu', 820, 820, 6_000],
        ['nl', 790, 790, 4_000],
        ['net', 1240, 1240, 9_900],
      ),
    },
    {
      ...base,
      id: 'larkhythe',
      title: 'Larkhythe Ltd',
      currency: 'GBP',
      leadDays: 28,
      lateDays: 0,
      privacyMinor: 400,
      prices: priceList(['uk', 700, 700, 0], ['com', 790, 990, 9_000], ['me', 1450, 1450, 11_000]),
    },
  ];
}

/** The office as a customer of each registrar: what it pays with, and how it logs in. */
export function practiceCustomers(now: number): Customer[] {
  const month = (days: number) => monthOf(now + days * DAY);
  const balance: PracticePaymentMethod = { kind: 'balance', label: 'balance', endsMonth: null };
  const office = (registrar: string, balanceMinor: number, paymentMethods: PracticePaymentMethod[]): Customer => ({
    registrar,
    login: `harbour-${registrar}`,
    password: `${registrar}-practice-pw`,
    balanceMinor,
    paymentMethods,
    topUps: [],
  });
  return [
    office('quaymark', 18_640, [balance, { kind: 'card', label: 'office card', endsMonth: month(-32) }]),
    office('wrackgate', 0, [{ kind: 'card', label: 'blue card', endsMonth: month(20) }]),
    office('fernhithe', 4_120, [balance]),
    office('bollard', 9_450, [balance, { kind: 'bank', label: 'bank order', endsMonth: null }]),
    office('larkhythe', 0, [{ kind: 'wallet', label: 'wallet', endsMonth: null }]),
  ];
}
