'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo } from 'react';
import { priceForProceeds } from '@/core/selling';
import type { Instant } from '@/core/time';
import { BidsChart } from '@/ui/chart/BidsChart';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Page, Section } from '@/ui/text/Sheet';
import type { AuctionView } from '@/usecases/selling/auctions';
import { useTitle } from '../../../frame/PageTitle';
import { BidPart, HighestPart, ReservePart } from './AuctionForms';
import { FiguresPart, OutcomeNotice } from './AuctionHead';
import { BidsTable, IncrementsPart } from './BidsPart';

const LOOK_EVERY_MS = 30_000;

/** One auction: how long it runs, the price, how far the reserve is, and its proceeds now. */
export function AuctionScreen({ view }: { view: AuctionView }) {
  const router = useRouter();
  const { auction, cost, fees, unitMinor, saleId, now } = view;
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
  const noLoss = cost === null || fees === null ? null : priceForProceeds(cost.minor, fees, unitMinor);
  const points = useMemo(() => bids.map(({ at, priceMinor, bidder }) => ({ at, minor: priceMinor, bidder })), [bids]);
  const lines = useMemo(
    () => [
      ...(auction.reserveMinor === null ? [] : [{ text: 'reserve', minor: auction.reserveMinor, isLoss: false }]),
      ...(noLoss === null ? [] : [{ text: 'no loss from here', minor: noLoss, isLoss: true }]),
    ],
    [auction.reserveMinor, noLoss],
  );
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
        {outcome && <OutcomeNotice outcome={outcome} view={view} />}
        <FiguresPart view={view} />
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
