'use client';
import { ButtonLink } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Page, Section } from '@/ui/text/Sheet';
import type { NameSelling } from '@/usecases/selling/report';
import { useTitle } from '../../../frame/PageTitle';
import { namePage } from '../../../frame/pages';
import { EnterOfferPart } from './EnterOfferPart';
import { ListingPart } from './ListingPart';
import { AuctionsTable, SalesTable, ThreadsTable } from './SellingTables';
import { WindowPart, type WindowSeen } from './WindowPart';

/** Everything of selling about one name: where it is listed, its proof, who has answered, what came of it. */
export function NameSellingScreen({ selling, seen }: { selling: NameSelling; seen: WindowSeen }) {
  const { nameId, ascii, unicode, listings, threads, auctions, sales, cost } = selling;
  useTitle('Selling', unicode);
  const promised = sales.some(({ stage }) => stage !== 'not paid' && stage !== 'refused');
  return (
    <Page>
      <Section>
        <Actions>
          <h2 className="name">{unicode}</h2>
          <Link href={namePage(ascii)}>in the ledger</Link>
          <span className="soft">
            {selling.account}
            {cost && `, has cost ${formatAmount(cost)}`}
          </span>
        </Actions>
        {!promised && (
          <Actions>
            <ButtonLink href={`/selling/price?names=${nameId}`} data-kind="primary">
              {listings.length === 0 ? 'Price and list' : 'Change prices, list elsewhere'}
            </ButtonLink>
          </Actions>
        )}
      </Section>
      {listings.map((listing) => (
        <ListingPart key={listing.id} listing={listing} linkedAccount={selling.linkedAccount} />
      ))}
      {listings.length > 0 && !promised && (
        <WindowPart nameId={nameId} ascii={ascii} seen={seen} linked={selling.linkedAccount} />
      )}
      {listings.length === 0 && !promised && <p className="soft">It is not listed for sale.</p>}
      <SalesTable sales={sales} />
      <AuctionsTable auctions={auctions} />
      <ThreadsTable threads={threads} />
      {!sales.some(({ stage }) => stage === 'done') && (
        <EnterOfferPart nameId={nameId} currency={listings[0]?.currency ?? 'USD'} />
      )}
    </Page>
  );
}
