'use client';
import styled from 'styled-components';
import { formatAmount } from '@/ui/text/figures';
import { Ruled, Section } from '@/ui/text/Sheet';
import { hourWords } from '@/ui/text/words';
import type { AuctionView } from '@/usecases/selling/auctions';
import { useLedger } from '../../../frame/LedgerProvider';

const Steps = styled(Ruled)`max-width: 320px;`;
/** By how much each bid has to be higher, from which price on. */
export function IncrementsPart({ view: { auction, standing } }: { view: AuctionView }) {
  const money = (minor: number) => formatAmount({ minor, currency: auction.currency }, true);
  return (
    <details>
      <summary>
        The next bid has to reach {money(standing.leastMinor)}
        {auction.atMarketplace && auction.nextMinor === null && ' by the usual steps'}
      </summary>
      <Steps aria-label="Bid increments">
        <thead>
          <tr>
            <th className="figure">from</th>
            <th className="figure">each bid is higher by</th>
          </tr>
        </thead>
        <tbody>
          {auction.increments.map(({ fromMinor, stepMinor }) => (
            <tr key={fromMinor}>
              <td className="figure">{money(fromMinor)}</td>
              <td className="figure">{money(stepMinor)}</td>
            </tr>
          ))}
        </tbody>
      </Steps>
    </details>
  );
}

/** Every bid, the last one first; what it goes up to is known where the office holds the auction. */
export function BidsTable({ auction: { bids, atMarketplace, currency } }: { auction: AuctionView['auction'] }) {
  const { style } = useLedger();
  const money = (minor: number) => formatAmount({ minor, currency }, true);
  return (
    <Section aria-label="Bids">
      <h2>Bids</h2>
      {bids.length === 0 ? (
        <p className="soft">Nobody has bid yet.</p>
      ) : (
        <Ruled aria-label="Bids">
          <thead>
            <tr>
              <th>When</th>
              <th>Bidder</th>
              {!atMarketplace && <th className="figure">up to</th>}
              <th className="figure">price after it</th>
            </tr>
          </thead>
          <tbody>
            {[...bids].reverse().map((bid) => (
              <tr key={bid.id}>
                <td>{hourWords(bid.at, style)}</td>
                <td>{bid.bidder}</td>
                {!atMarketplace && <td className="figure">{bid.maxMinor === null ? '' : money(bid.maxMinor)}</td>}
                <td className="figure">{money(bid.priceMinor)}</td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      )}
    </Section>
  );
}
