import { randomUUID } from 'node:crypto';
import type { MarketplaceListingState } from '@/connectors/marketplace/port';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import type { Instant } from '@/core/time';
import { type ListingRow, selectListing, stepListings } from '@/database/listings';
import { selectMarketplace } from '@/database/marketplaces';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { linkOf } from '../links/links';
import { marketplaceLink, marketplaceProblem } from '../marketplaces/marketplaces';
import { readRequest } from '../validate';
import { ProveListing } from './requests';
import { takeState } from './sendListings';

const LOOK_AGAIN_MS = 10 * 60_000;

/** At once when the link has set the record, else every ten minutes: somebody may be setting it by hand. */
export function isLookDue({ proofSetAt, proofLookedAt }: ListingRow, now: Instant): boolean {
  const isNew = proofSetAt !== null && (proofLookedAt === null || proofLookedAt < proofSetAt);
  return isNew || proofLookedAt === null || now - proofLookedAt >= LOOK_AGAIN_MS;
}

/** Sets the record that proves ownership by the registrar's link, where the account has one. */
export async function setProof(deps: Deps, listing: ListingRow, state: MarketplaceListingState): Promise<void> {
  const link = state.proof && (await linkOf(deps, listing.accountId));
  if (!link || !state.proof) return;
  const set = await link.change(listing.ascii, { text: state.proof.text }, `NL-${randomUUID()}`);
  if (set.kind === 'done') await stepListings(deps.database, [listing.id], { proofSetAt: deps.clock() });
  else deps.log.warn({ listing: listing.id, outcome: set.kind }, 'a proof could not be set by link');
}

/** Asks a marketplace to look for a proof now, or to take a code that it mailed. Answers a problem, or `null`. */
export async function proveAtMarketplace(
  deps: Deps,
  listing: ListingRow,
  by: 'txt' | 'mail',
  code: string | null,
): Promise<string | null> {
  const marketplace =
    listing.marketplaceId === null ? null : await selectMarketplace(deps.database, listing.marketplaceId);
  const link = marketplace && (await marketplaceLink(deps, marketplace));
  if (!link) return 'This marketplace has no link that works: prove it there, then note it here.';
  const looked = await link.prove(listing.ascii, by, code);
  if (looked.kind !== 'done') return marketplaceProblem(looked);
  await changing(deps, (tx) => takeState(tx, deps, marketplace, listing, looked.value, ['unproved']));
  return looked.value.status === 'unproved' ? looked.value.reason : null;
}

/** Has a listing's proof looked for, or takes the code that was mailed; by hand it is noted as proved. */
export async function proveListing(deps: Deps, input: unknown): Promise<true | Refusal> {
  const request = await readRequest(ProveListing, input);
  if (isRefusal(request)) return request;
  const listing = await selectListing(deps.database, request.listingId);
  if (!listing) return refuse('listing-unknown', 'This listing is no longer there. Load the page again.');
  if (request.by === 'by hand') {
    await changing(deps, (tx) =>
      stepListings(tx, [listing.id], { proofBy: 'by hand', provedAt: deps.clock(), status: 'in review' }, ['unproved']),
    );
    return true;
  }
  const problem = await proveAtMarketplace(deps, listing, request.by, request.code ?? null);
  return problem === null ? true : refuse('not-proved', problem, 'code');
}
