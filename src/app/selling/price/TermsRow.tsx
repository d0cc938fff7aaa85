'use client';
import { LISTING_KINDS, LISTING_LIMITS, type ListingKind } from '@/core/selling';
import { Choice } from '@/ui/controls/Field';
import type { MarketplaceRow } from '@/usecases/marketplaces/marketplaces';
import { usePricing } from './PricingContext';
import { Row } from './Row';

/** Lengths that the office's own auctions may have, in days. */
const OWN_AUCTION_DAYS = [1, 4, 7, 10, 14, 21, 30, 60, LISTING_LIMITS.auctionDays.most];

interface TermsRowProps {
  readonly kinds: readonly ListingKind[];
  readonly currencies: readonly string[];
  readonly auctionDays: number;
  readonly onMarketplace: (id: number | null) => void;
  readonly onCurrency: (currency: string) => void;
  readonly onTerms: (terms: { kind: ListingKind } | { auctionDays: number }) => void;
}

/** Where the chosen names are sold, in which currency, and how. */
export function TermsRow({ kinds, currencies, auctionDays, onMarketplace, onCurrency, onTerms }: TermsRowProps) {
  const { pricing, at } = usePricing();
  return (
    <Row>
      <Choice
        label="Where"
        value={String(at.marketplace?.id ?? '')}
        onChange={(id) => onMarketplace(id === '' ? null : Number(id))}
        options={[
          { value: '', text: 'the office itself' },
          ...pricing.marketplaces.map(({ id, label }) => ({ value: String(id), text: label })),
        ]}
      />
      <Choice
        label="Currency"
        value={at.currency}
        onChange={onCurrency}
        options={[...new Set([...currencies, at.currency])].map((code) => ({ value: code, text: code }))}
      />
      <div data-wide>
        <Choice
          label="Offer the chosen as"
          value={kinds.length === 1 ? (kinds[0] as ListingKind) : null}
          placeholder="different"
          onChange={(kind) => onTerms({ kind })}
          options={LISTING_KINDS.map((kind) => ({ value: kind, text: kind }))}
        />
      </div>
      {kinds.includes('auction') && (
        <Choice
          label="Auction runs"
          value={String(auctionDays)}
          onChange={(days) => onTerms({ auctionDays: Number(days) })}
          options={lengthsAt(at.marketplace).map((days) => ({
            value: String(days),
            text: days === 1 ? 'one day' : `${days} days`,
          }))}
        />
      )}
    </Row>
  );
}

/** The lengths that a marketplace offers; any for the office itself. */
function lengthsAt(marketplace: MarketplaceRow | null): readonly number[] {
  return marketplace && marketplace.auctionDays.length > 0 ? marketplace.auctionDays : OWN_AUCTION_DAYS;
}
