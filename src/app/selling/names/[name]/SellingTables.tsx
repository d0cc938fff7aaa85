'use client';
import { Link } from '@/ui/controls/Link';
import { formatAmount } from '@/ui/text/figures';
import { Ruled, Section } from '@/ui/text/Sheet';
import { STAGE_WORDS } from '@/ui/text/sellingWords';
import { dayWords, hourWords } from '@/ui/text/words';
import type { NameSelling } from '@/usecases/selling/report';
import { useLedger } from '../../../frame/LedgerProvider';

/** What came of selling a name. */
export function SalesTable({ sales }: Pick<NameSelling, 'sales'>) {
  const { style } = useLedger();
  if (sales.length === 0) return null;
  return (
    <Section aria-label="Sales">
      <h2>Sales</h2>
      <Ruled aria-label="Sales">
        <tbody>
          {sales.map((sale) => (
            <tr key={sale.id}>
              <td>
                <Link href={`/selling/sales/${sale.id}`}>{dayWords(sale.agreedAt, style)}</Link>
              </td>
              <td>{sale.buyer}</td>
              <td>
                {STAGE_WORDS[sale.stage]}
                {sale.note && `: ${sale.note}`}
              </td>
              <td className="figure">{formatAmount({ minor: sale.priceMinor, currency: sale.currency }, true)}</td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Section>
  );
}

/** The auctions of a name, running and closed. */
export function AuctionsTable({ auctions }: Pick<NameSelling, 'auctions'>) {
  const { style } = useLedger();
  if (auctions.length === 0) return null;
  return (
    <Section aria-label="Auctions">
      <h2>Auctions</h2>
      <Ruled aria-label="Auctions">
        <tbody>
          {auctions.map((auction) => (
            <tr key={auction.id}>
              <td>
                <Link href={`/selling/auctions/${auction.id}`}>
                  {auction.outcome === null ? `closes ${hourWords(auction.closesAt, style)}` : auction.outcome.kind}
                </Link>
              </td>
              <td>{auction.marketplace ?? 'the office'}</td>
              <td>
                {auction.bids.length} {auction.bids.length === 1 ? 'bid' : 'bids'}
              </td>
              <td className="figure">
                {formatAmount({ minor: auction.priceMinor ?? auction.startMinor, currency: auction.currency }, true)}
              </td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Section>
  );
}

/** Who has answered, and whose turn it is. */
export function ThreadsTable({ threads }: Pick<NameSelling, 'threads'>) {
  if (threads.length === 0) return null;
  return (
    <Section aria-label="Offers">
      <h2>Offers</h2>
      <Ruled aria-label="Offers">
        <tbody>
          {threads.map((thread) => {
            const last = thread.figures.at(-1);
            return (
              <tr key={thread.id} data-off={!['open', 'waiting', 'accepted'].includes(thread.state)}>
                <td>
                  <Link href={`/selling/offers/${thread.id}`}>{thread.buyer}</Link>
                </td>
                <td>{thread.marketplace ?? 'by hand'}</td>
                <td>
                  {thread.state}
                  {thread.state === 'open' && (last?.by === 'buyer' ? ', yours to answer' : ', the buyer’s to answer')}
                </td>
                <td className="figure">
                  {last && formatAmount({ minor: last.minor, currency: thread.currency }, true)}
                </td>
              </tr>
            );
          })}
        </tbody>
      </Ruled>
    </Section>
  );
}
