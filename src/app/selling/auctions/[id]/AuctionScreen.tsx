'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo } from 'react';
import styled from 'styled-components';
import { netProceedsOf, priceForProceeds } from '@/core/selling';
import { DAY_MS, HOUR_MS, type Instant } from '@/core/time';
import { BidsChart } from '@/ui/chart/BidsChart';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Notice, Page, Section } from '@/ui/text/Sheet';
import { hourWords } from '@/ui/text/words';
import type { AuctionView } from '@/usecases/selling/auctions';
import { useTitle } from '../../../frame/Frame';
import { useLedger } from '../../../frame/LedgerProvider';
import { BidPart, HighestPart, ReservePart } from './AuctionForms';
import { BidsTable, IncrementsPart } from './BidsPart';

const Figures = styled.dl`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(140px, 1fr));
  gap: 6px 16px;
  & dt { color: var(--ink-soft); font-size: 0.9rem; }
  & dd { font-size: 1.15rem; font-weight: 600; }
  & dd small { display: block; font-weight: 400; font-size: 0.86rem; color: var(--ink-soft); }
`;

const LOOK_EVERY_MS = 30_000;

/** `3 days 4 hours`, `12 minutes`: how long it still runs. */
function leftWords(ms: number): string {
  const [days, hours, minutes] = [
    Math.floor(ms / DAY_MS),
    Math.floor((ms % DAY_MS) / HOUR_MS),
    Math.ceil((ms % HOUR_MS) / 60_000),
  ];
  const some = (count: number, word: string) => (count === 1 ? `one ${word}` : `${count} ${word}s`);
  if (days > 0) return hours > 0 ? `${some(days, 'day')}, ${some(hours, 'hour')}` : some(days, 'day');
  return hours > 0 ? some(hours, 'hour') : some(minutes, 'minute');
}

/** One auction: how long it runs, the price, how far the reserve is, and its proceeds now. */
export function AuctionScreen({ view }: { view: AuctionView }) {
  const router = useRouter();
  const { style } = useLedger();
  const { auction, standing, cost, fees, unitMinor, saleId, now } = view;
  const { currency, outcome, bids } = auction;
  useTitle('Selling', `auction of ${auction.unicode}`);
  const isOpen = outcome === null;
  // Bids come while one looks.
  useEffect(() => {
    if (!isOpen) return;
    const timer = setInterval(() => router.refresh(), LOOK_EVERY_MS);
    return () => clearInterval(timer);
  }, [isOpen, router]);

  const money = (minor: number) => formatAmount({ minor, currency }, true);
  const price = standing.priceMinor;
  const proceeds = price === null || fees === null ? null : netProceedsOf(price, fees).proceedsMinor;
  const noLoss = cost === null || fees === null ? null : priceForProceeds(cost.minor, fees, unitMinor);
  const points = useMemo(() => bids.map(({ at, priceMinor, bidder }) => ({ at, minor: priceMinor, bidder })), [bids]);
  const lines = useMemo(
    () => [
      ...(auction.reserveMinor === null ? [] : [{ text: 'reserve', minor: auction.reserveMinor, isLoss: false }]),
      ...(noLoss === null ? [] : [{ text: 'no loss from here', minor: noLoss, isLoss: true }]),
    ],
    [auction.reserveMinor, noLoss],
  );
  const bidders = new Set(bids.map(({ bidder }) => bidder)).size;
  return (
    <Page>
      <Section>
        <Actions>
          <h2>
            Auction of <span className="name">{auction.unicode}</span>
          </h2>
          <Link href={`/selling/names/${encodeURIComponent(auction.ascii)}`}>all of this name</Link>
          <span className="soft">{auction.marketplace ?? 'held by the office'}</span>
        </Actions>
        {outcome && (
          <Notice data-kind={outcome.kind === 'sold' ? undefined : 'caution'}>
            <p>
              {outcome.kind === 'sold'
                ? `Sold to ${outcome.to} for ${money(outcome.priceMinor)}${outcome.how === 'buy now' ? ' at the buy-now price' : auction.reserveMinor === null ? '' : ', reserve met'}.`
                : outcome.kind === 'cancelled'
                  ? 'Cancelled before anybody bid.'
                  : outcome.highest === null
                    ? 'Not sold: nobody bid.'
                    : `Not sold: the reserve was not met. ${outcome.highest} bid most.`}{' '}
              {saleId !== null && <Link href={`/selling/sales/${saleId}`}>See the sale through</Link>}
            </p>
          </Notice>
        )}
        <Figures aria-label="How it stands">
          <div>
            <dt>{isOpen ? 'closes in' : 'closed'}</dt>
            <dd>
              {isOpen
                ? leftWords(Math.max(0, auction.closesAt - now))
                : hourWords(auction.closedAt ?? auction.closesAt, style)}
              <small>{isOpen ? hourWords(auction.closesAt, style) : ''}</small>
            </dd>
          </div>
          <div>
            <dt>price</dt>
            <dd>
              {price === null ? '–' : money(price)}
              <small>
                {price === null ? `starts at ${money(auction.startMinor)}` : `${auction.leader ?? ''} leads`}
              </small>
            </dd>
          </div>
          <div>
            <dt>reserve</dt>
            <dd>
              {auction.reserveMinor === null ? 'none' : money(auction.reserveMinor)}
              {auction.reserveMinor !== null && (
                <small>{standing.reserveMet ? 'met' : `${money(auction.reserveMinor - (price ?? 0))} to go`}</small>
              )}
            </dd>
          </div>
          <div>
            <dt>proceeds now</dt>
            <dd>
              {proceeds === null ? (fees === null ? 'no rate' : '–') : money(proceeds)}
              <small className={proceeds !== null && cost !== null && proceeds < cost.minor ? 'caution' : undefined}>
                {proceeds !== null && cost !== null && `profit ${money(proceeds - cost.minor)}`}
              </small>
            </dd>
          </div>
          <div>
            <dt>bids</dt>
            <dd>
              {bids.length}
              <small>{bidders === 1 ? 'one bidder' : `${bidders} bidders`}</small>
            </dd>
          </div>
          {auction.buyNowMinor !== null && (
            <div>
              <dt>buy now</dt>
              <dd>
                {money(auction.buyNowMinor)}
                <small>{isOpen && standing.buyNowOpen ? 'still open' : 'no longer open'}</small>
              </dd>
            </div>
          )}
        </Figures>
      </Section>
      <BidsChart
        points={points}
        lines={lines}
        currency={currency}
        from={auction.opensAt}
        to={auction.closesAt}
        until={Math.min(now, auction.closesAt) as Instant}
        label={`Price of ${auction.unicode} over time; the bids stand in the table below`}
      />
      <p className="soft">
        The solid line is the price
        {auction.reserveMinor !== null && `, the long dashes the reserve of ${money(auction.reserveMinor)}`}
        {noLoss !== null && `, the short ones ${money(noLoss)}, from which no loss is left`}.
      </p>
      {isOpen && !auction.atMarketplace && <BidPart view={view} />}
      {isOpen && auction.reserveMinor !== null && <ReservePart view={view} />}
      {outcome?.kind === 'unsold' && outcome.highest !== null && saleId === null && <HighestPart view={view} />}
      {isOpen && <IncrementsPart view={view} />}
      <BidsTable auction={auction} />
    </Page>
  );
}
