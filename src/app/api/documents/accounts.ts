import { PAYMENT_METHOD_KINDS, type PaymentMethod } from '@/core/funding';
import { formatInstant, type Instant } from '@/core/time';
import type { HeldAccount } from '@/usecases/accounts/accounts';
import type { AccountForecast } from '@/usecases/accounts/forecast';
import type { LinkRow } from '@/usecases/links/links';
import type { MessageRow } from '@/usecases/links/messages';
import {
  amountOf,
  documentOf,
  figure,
  from,
  instant,
  list,
  money,
  named,
  oneOf,
  orNull,
  text,
  whole,
  yesNo,
} from '../kinds';
import { type Ground, grounds } from './answers';

const paymentMethod = documentOf<PaymentMethod>()({
  kind: oneOf(...PAYMENT_METHOD_KINDS),
  label: text,
  endsMonth: orNull(text),
});

export const accountDocument = named(
  'Account',
  documentOf<HeldAccount>()({
    id: whole,
    label: text,
    registrar: text,
    currency: text,
    names: whole,
    leadDays: whole,
    lateDays: whole,
    switchHours: orNull(whole),
    lateFee: amountOf(({ lateFeeMinor: minor, currency }: HeldAccount) => ({ minor, currency })),
    taxPercent: figure,
    auctionDay: orNull(whole),
    yearsPerCharge: whole,
    retryDays: list(whole),
    refunds: yesNo,
    paymentMethods: list(paymentMethod),
    balance: amountOf(({ balanceMinor: minor, currency }: HeldAccount) => ({ minor, currency })),
    balanceAt: orNull(instant),
    linked: yesNo,
    holder: orNull(text),
    holderMail: orNull(text),
    rulesKnown: yesNo,
    notes: text,
  }),
);

type ForecastCharge = AccountForecast['charges'][number];

export const charge = documentOf<ForecastCharge>()({
  name: from(({ ascii }: ForecastCharge) => ascii, text),
  at: instant,
  years: whole,
  cost: orNull(money),
  outcome: oneOf('pass', 'fail'),
  assumed: yesNo,
  paymentMethod: orNull(text),
  cause: from(({ cause }: ForecastCharge) => cause?.kind, orNull(text)),
  balanceAfter: amountOf(({ balanceMinor: minor, cost }: ForecastCharge) => ({
    minor,
    currency: cost?.currency ?? null,
  })),
});

type Lapsing = AccountForecast['lapsing'][number];

type Month = AccountForecast['months'][number];

const restsOn = ({ account: of, notKnown, balanceAt }: AccountForecast): Ground[] => [
  {
    what: of.balanceMinor === null ? 'no balance is known' : 'the balance',
    asOf: balanceAt && formatInstant(balanceAt),
  },
  { what: 'the prices of this account as the ledger has them', asOf: null },
  ...(notKnown > 0
    ? [{ what: `${notKnown} charges have no known price and are left out of the sums`, asOf: null }]
    : []),
];

export const forecast = named(
  'Funding',
  documentOf<AccountForecast>()({
    account: from(({ account: of }: AccountForecast) => of.label, text),
    until: instant,
    charges: list(charge),
    months: from(
      ({ months, account: { currency } }: AccountForecast) => months.map((month) => ({ ...month, currency })),
      list(
        documentOf<Month & { currency: string }>()({
          month: text,
          charges: whole,
          passing: amountOf((month) => ({ minor: month.passingMinor, currency: month.currency })),
          failing: whole,
          failingSum: amountOf((month) => ({ minor: month.failingMinor, currency: month.currency })),
        }),
      ),
    ),
    pricesUnknown: from(({ notKnown }: AccountForecast) => notKnown, whole),
    firstFailure: from(({ charges }: AccountForecast) => charges.find((one) => one.outcome === 'fail'), orNull(charge)),
    leastTopUp: from(
      ({ leastTopUp, account: { currency } }: AccountForecast) =>
        leastTopUp && { amount: { minor: leastTopUp.minor, currency }, by: leastTopUp.by },
      orNull(
        documentOf<{ amount: { minor: number; currency: string }; by: Instant }>()({ amount: money, by: instant }),
      ),
    ),
    lapsing: list(
      documentOf<Lapsing>()({ name: from(({ ascii }: Lapsing) => ascii, text), lapsesAt: instant, years: whole }),
    ),
    restsOn: from(restsOn, grounds),
  }),
);

export const linkDocument = named(
  'Link',
  documentOf<LinkRow>()({
    accountId: whole,
    host: text,
    port: whole,
    login: text,
    readAt: orNull(instant),
    polledAt: orNull(instant),
    problem: orNull(text),
  }),
);

export const message = named(
  'RegistrarMessage',
  documentOf<MessageRow>()({
    accountId: whole,
    toldAt: orNull(instant),
    receivedAt: instant,
    kind: orNull(text),
    name: orNull(text),
    text,
  }),
);
