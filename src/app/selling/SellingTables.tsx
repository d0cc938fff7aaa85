'use client';
import { Link } from '@/ui/controls/Link';
import { formatAmount } from '@/ui/text/figures';
import { Ruled, Section } from '@/ui/text/Sheet';
import { STAGE_WORDS } from '@/ui/text/sellingWords';
import { dayWords, hourWords, untilWords } from '@/ui/text/words';
import type { SellingReport } from '@/usecases/selling/report';
import { useLedger } from '../frame/LedgerProvider';

/** Sales in which somebody else acts next. */
export function SalesOnTheirWay({ sales }: { sales: SellingReport['sales'] }) {
  const { style } = useLedger();
  if (sales.length === 0) return null;
  return (
    <Section aria-label="Sales on their way">
      <h2>Sales on their way</h2>
      <Ruled aria-label="Sales on their way" data-list>
        <tbody>
          {sales.map((sale) => (
            <tr key={sale.id}>
              <td>
                <Link href={`/selling/sales/${sale.id}`} className="name">
                  {sale.unicode}
                </Link>
              </td>
              <td className="under">{STAGE_WORDS[sale.stage]}</td>
              <td className="under">{sale.dueAt !== null && `by ${dayWords(sale.dueAt, style)}`}</td>
              <td className="under">{sale.buyer}</td>
              <td className="figure">{formatAmount({ minor: sale.priceMinor, currency: sale.currency }, true)}</td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Section>
  );
}

/** Auctions in which nothing has to be decided yet. */
export function RunningAuctions({ auctions }: { auctions: SellingReport['auctions'] }) {
  const { style } = useLedger();
  if (auctions.length === 0) return null;
  return (
    <Section aria-label="Auctions that run">
      <h2>Auctions that run</h2>
      <Ruled aria-label="Auctions that run" data-list>
        <tbody>
          {auctions.map((auction) => (
            <tr key={auction.id}>
              <td>
                <Link href={`/selling/auctions/${auction.id}`} className="name">
                  {auction.unicode}
                </Link>
              </td>
              <td className="under">closes {hourWords(auction.closesAt, style)}</td>
              <td className="under">
                {auction.bids.length} {auction.bids.length === 1 ? 'bid' : 'bids'}
                {auction.reserveMinor !== null && (auction.reserveMet ? ', reserve met' : ', reserve not met')}
              </td>
              <td className="under">{auction.marketplace ?? 'the office'}</td>
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

/** Offers in which the buyer answers next. */
export function WaitingThreads({ threads }: { threads: SellingReport['threads'] }) {
  const { style } = useLedger();
  if (threads.length === 0) return null;
  return (
    <Section aria-label="Waiting for the buyer">
      <h2>Waiting for the buyer</h2>
      <Ruled aria-label="Waiting for the buyer" data-list>
        <tbody>
          {threads.map((thread) => {
            const last = thread.figures.at(-1);
            return (
              <tr key={thread.id}>
                <td>
                  <Link href={`/selling/offers/${thread.id}`} className="name">
                    {thread.unicode}
                  </Link>
                </td>
                <td className="under">{thread.buyer}</td>
                <td className="under">
                  {thread.state === 'waiting' ? 'waits: the name is promised' : 'has your figure'}
                </td>
                <td className="under">{last?.lapsesAt && `until ${untilWords(last.lapsesAt, style)}`}</td>
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
