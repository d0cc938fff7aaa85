import { wholeUnit } from '@/core/money';
import { type Refusal, refuse } from '@/core/refusal';
import type { PriceName } from '@/core/selling';
import { type ListingRow, selectListings } from '@/database/listings';
import { selectMarketplace } from '@/database/marketplaces';
import { writeTable } from '@/formats/csv/writeTable';
import type { Deps } from '../deps';

/** Fields that a marketplace's list of listings can have, with what stands there. */
export const CSV_FIELDS: Readonly<Record<string, (listing: ListingRow) => string>> = {
  name: ({ ascii }) => ascii,
  unicode: ({ unicode }) => unicode,
  kind: ({ kind }) => kind,
  currency: ({ currency }) => currency,
  asking: (listing) => whole(listing, 'asking'),
  'minimum offer': (listing) => whole(listing, 'minimum'),
  start: (listing) => whole(listing, 'start'),
  reserve: (listing) => whole(listing, 'reserve'),
  'buy now': (listing) => whole(listing, 'buyNow'),
  'auction days': ({ kind, auctionDays }) => (kind === 'auction' ? String(auctionDays) : ''),
  category: ({ categories }) => categories[0] ?? '',
  categories: ({ categories }) => categories.join('; '),
  pitch: ({ pitch }) => pitch,
  description: ({ description }) => description,
  'with site': ({ withSite }) => (withSite ? 'yes' : 'no'),
  attributes: ({ attributes }) =>
    Object.entries(attributes)
      .map(([label, chosen]) => `${label}: ${chosen}`)
      .join('; '),
};

function whole({ prices, currency }: ListingRow, name: PriceName): string {
  const minor = prices[name];
  return minor === null ? '' : String(minor / wholeUnit(currency));
}

/** The current listings at a marketplace as CSV, in its own columns where they are defined. */
export async function listingsCsv(deps: Deps, marketplaceId: number): Promise<string | Refusal> {
  const row = await selectMarketplace(deps.database, marketplaceId);
  if (!row) return refuse('marketplace-unknown', 'That marketplace is no longer there. Choose another.');
  const listings = (await selectListings(deps.database, null)).filter(
    (listing) => listing.marketplaceId === marketplaceId,
  );
  const columns = row.csvColumns ?? Object.keys(CSV_FIELDS).map((field) => ({ heading: field, field }));
  return writeTable(
    columns.map(({ heading }) => heading),
    listings.map((listing) => columns.map(({ field }) => CSV_FIELDS[field]?.(listing) ?? '')),
  );
}
