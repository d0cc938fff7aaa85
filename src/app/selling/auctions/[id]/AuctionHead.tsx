'use client';
import styled from 'styled-components';
import { netProceedsOf } from '@/core/selling';
import { DAY_MS, HOUR_MS } from '@/core/time';
import { Link } from '@/ui/controls/Link';
import { formatAmount } from '@/ui/text/figures';
import { Notice } from '@/ui/text/Sheet';
import { hourWords } from '@/ui/text/words';
import type { AuctionView } from '@/usecases/selling/auctions';
import { useLedger } from '../../../frame/LedgerProvider';

/** What came of an auction. */
export function OutcomeNotice({
  outcome,
  view,
}: {
  outcome: NonNullable<AuctionView['auction']['outcome']>;
  view: AuctionView;
}) {
  const { auction, saleId } = view;
  const money = (minor: number) => formatAmount({ minor, currency: auction.currency }, true);
  return (
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
  );
}

const Figures = styled.dl`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(140px, 1fr));
  gap: 6px 16px;
  & dt { color: var(--ink-soft); font-size: 0.9rem; }
  & dd { font-size: 1.15rem; font-weight: 600; }
  & dd small { display: block; font-weight: 400; font-size: 0.86rem; color: var(--ink-soft); }
`;

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

/** How an auction stands: time, price, reserve, proceeds, bids. */
export function FiguresPart({ view }: { view: AuctionView }) {
  const { style } = useLedger();
  const { auction, standing, cost, fees, now } = view;
  const { currency, bids, outcome } = auction;
  const isOpen = outcome === null;
  const money = (minor: number) => formatAmount({ minor, currency }, true);
  const price = standing.priceMinor;
  const proceeds = price === null || fees === null ? null : netProceedsOf(price, fees).proceedsMinor;
  const bidders = new Set(bids.map(({ bidder }) => bidder)).size;
  return (
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
          <small>{price === null ? `starts at ${money(auction.startMinor)}` : `${auction.leader ?? ''} leads`}</small>
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
  );
}
