import { type AuctionRow, selectAuctions } from '@/database/auctions';
import { type ListingRow, selectListing, selectListings } from '@/database/listings';
import { selectThreads, type ThreadRow } from '@/database/offers';
import { type SaleRow, selectSales } from '@/database/sales';
import type { Deps } from '../deps';

/** Every listing. */
export const listings = ({ database }: Deps): Promise<ListingRow[]> => selectListings(database, null);

/** One listing; `null` where there is none. */
export const listing = ({ database }: Deps, id: number): Promise<ListingRow | null> => selectListing(database, id);

/** Every thread of offers. */
export const offers = ({ database }: Deps): Promise<ThreadRow[]> => selectThreads(database, null);

/** Every auction with its bids. */
export const auctions = ({ database }: Deps): Promise<AuctionRow[]> => selectAuctions(database, null);

/** Every sale, under way and ended. */
export const sales = ({ database }: Deps): Promise<SaleRow[]> => selectSales(database);
