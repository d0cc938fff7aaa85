'use client';
import { Fragment, type ReactNode } from 'react';
import type { PaymentMethod } from '@/core/funding';
import type { LedgerAccount } from '@/core/ledger';
import type { Policy } from '@/core/lifecycle';
import { formatMonth, type Month } from '@/core/time';
import { formatAmount } from './figures';

/** Parts of a sentence with commas between them. */
function Listed({ parts }: { parts: readonly ReactNode[] }) {
  return parts
    .filter((part) => part !== null && part !== false)
    .map((part, place) => (
      // biome-ignore lint/suspicious/noArrayIndexKey: a part is known by its place
      <Fragment key={place}>
        {place > 0 && ', '}
        {part}
      </Fragment>
    ));
}

const days = (count: number) => (
  <>
    <b>{count}</b> {count === 1 ? 'day' : 'days'}
  </>
);

function Means({ methods }: { methods: readonly PaymentMethod[] }) {
  if (methods.length === 0) return <span className="caution">from what it pays is not known</span>;
  return (
    <>
      pays from{' '}
      {methods.map(({ label, endsMonth }, place) => (
        <Fragment key={label}>
          {place > 0 && ', then '}
          <b>
            {label}
            {endsMonth && ` to ${formatMonth(endsMonth as Month)}`}
          </b>
        </Fragment>
      ))}
    </>
  );
}

/** How an account charges, in one sentence: “charges 5 days before the end, tries again 2 days before, keeps late names 45 days, pays from balance”. */
export function AccountSentence({
  account,
}: {
  account: Pick<
    LedgerAccount,
    | 'leadDays'
    | 'retryDays'
    | 'lateDays'
    | 'lateFeeMinor'
    | 'currency'
    | 'auctionDay'
    | 'paymentMethods'
    | 'yearsPerCharge'
  >;
}) {
  const { leadDays, retryDays, lateDays, lateFeeMinor, currency, auctionDay, paymentMethods, yearsPerCharge } = account;
  return (
    <Listed
      parts={[
        leadDays === 0 ? 'charges on the last day' : <>charges {days(leadDays)} before the end</>,
        yearsPerCharge > 1 && (
          <>
            for <b>{yearsPerCharge}</b> years
          </>
        ),
        retryDays.length > 0 && (
          <>
            tries again <b>{retryDays.join(' and ')}</b> {retryDays.length === 1 && retryDays[0] === 1 ? 'day' : 'days'}{' '}
            before
          </>
        ),
        lateDays === 0 ? 'keeps no late names' : <>keeps late names {days(lateDays)}</>,
        lateDays > 0 && lateFeeMinor > 0 && (
          <>
            for a fee of <b>{formatAmount({ minor: lateFeeMinor, currency })}</b>
          </>
        ),
        auctionDay !== null && (
          <>
            auctions them on day <b>{auctionDay}</b>
          </>
        ),
        <Means key="means" methods={paymentMethods} />,
      ]}
    />
  );
}

/** The life of an ending's names in one sentence. */
export function PolicySentence({ policy }: { policy: Policy }) {
  const {
    lateDays,
    redemptionDays,
    pendingRestoreDays,
    pendingDeleteDays,
    refundableDays,
    transferYears,
    terms,
    ceilingYears,
  } = policy;
  const { least, greatest, step } = terms.renew;
  const longest = Math.min(greatest, ceilingYears);
  return (
    <Listed
      parts={[
        <Fragment key="terms">
          terms of <b>{longest === least ? least : `${least} to ${longest}`}</b> {longest === 1 ? 'year' : 'years'}
          {step > 1 && ` in steps of ${step}`}
        </Fragment>,
        refundableDays > 0 && <>refundable for {days(refundableDays)}</>,
        lateDays === 0 ? 'no grace period' : <>late (grace period) for {days(lateDays)}</>,
        redemptionDays === 0 ? 'no redemption' : <>redemption for {days(redemptionDays)}</>,
        redemptionDays > 0 && <>the report of a restore due within {days(pendingRestoreDays)}</>,
        <Fragment key="deletion">free {days(pendingDeleteDays)} after that</Fragment>,
        transferYears > 0 && (
          <>
            a transfer adds <b>{transferYears}</b> {transferYears === 1 ? 'year' : 'years'}
          </>
        ),
      ]}
    />
  );
}

/** How a marketplace sells, in one sentence. */
export function MarketplaceSentence({
  marketplace,
}: {
  marketplace: {
    readonly currencies: readonly string[];
    readonly auctionDays: readonly number[];
    readonly extensionMinutes: number;
    readonly reviewHours: number;
    readonly wholeUnits: boolean;
  };
}) {
  const { currencies, auctionDays, extensionMinutes, reviewHours, wholeUnits } = marketplace;
  return (
    <Listed
      parts={[
        <Fragment key="currencies">
          sells in <b>{currencies.length === 0 ? 'any currency' : currencies.join(', ')}</b>
          {wholeUnits && ', whole units only'}
        </Fragment>,
        <Fragment key="review">
          looks at a listing for up to <b>{reviewHours}</b> hours
        </Fragment>,
        auctionDays.length === 0 ? (
          'holds no auctions'
        ) : (
          <>
            auctions run <b>{auctionDays.join(', ')}</b> days
            {extensionMinutes > 0 && (
              <>
                , and a late bid moves the close by <b>{extensionMinutes}</b> minutes
              </>
            )}
          </>
        ),
      ]}
    />
  );
}
