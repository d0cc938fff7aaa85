import { randomUUID } from 'node:crypto';
import type { MarketplaceListingState } from '@/connectors/marketplace/port';
import { askDns, type DnsServer } from '@/connectors/records/dnsClient';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import type { Instant } from '@/core/time';
import { type ListingRow, selectListing, stepListings } from '@/database/listings';
import { selectMarketplace } from '@/database/marketplaces';
import { selectSettings } from '@/database/settings';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { linkOf } from '../links/links';
import { marketplaceLink, marketplaceProblem } from '../marketplaces/marketplaces';
import { command } from '../people/command';
import { dnsServer } from '../records/servers';
import { readRequest } from '../validate';
import { PlaceProof, ProveListing } from './proofRequests';
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
export const proveListing = command('proveListing', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
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
});

/**
 * Takes the text that a marketplace without a link wants to see, and has the registrar's link set it where the account has one. Answers
 * whether it was set: else the person sets it at the registrar.
 */
export const placeProof = command(
  'placeProof',
  async (deps: Deps, input: unknown): Promise<{ readonly isSet: boolean } | Refusal> => {
    const request = await readRequest(PlaceProof, input);
    if (isRefusal(request)) return request;
    const listing = await selectListing(deps.database, request.listingId);
    if (listing?.status !== 'unproved')
      return refuse('listing-unknown', 'This listing waits for no proof any more. Load the page again.');
    const text = request.text.trim();
    await changing(deps, (tx) =>
      stepListings(tx, [listing.id], { proofHost: listing.ascii, proofText: text, proofSetAt: null }, ['unproved']),
    );
    const link = await linkOf(deps, listing.accountId);
    if (!link) return { isSet: false };
    const set = await link.change(listing.ascii, { text }, `NL-${randomUUID()}`);
    if (set.kind !== 'done') {
      deps.log.warn({ listing: listing.id, outcome: set.kind }, 'a proof could not be set by link');
      return { isSet: false };
    }
    await changing(deps, (tx) => stepListings(tx, [listing.id], { proofSetAt: deps.clock() }, ['unproved']));
    return { isSet: true };
  },
);

/** Looks by DNS whether the text stands in the zone. There, it is proved as far as can be seen from here, and the marketplace may look. */
export const lookForProof = command('lookForProof', async (deps: Deps, listingId: number): Promise<true | Refusal> => {
  const listing = await selectListing(deps.database, listingId);
  if (!listing?.proofText) return refuse('listing-unknown', 'Write the text first that the marketplace wants to see.');
  const dns = dnsServer((await selectSettings(deps.database)).records);
  if (dns === null)
    return refuse('no-name-server', 'No name server is set to be asked. Name one under Setup → Records.');
  let texts: string[];
  try {
    texts = await textsOf(dns, listing.ascii);
  } catch (error) {
    deps.log.warn({ err: error }, 'a proof could not be looked for');
    return refuse('no-answer', 'The name server did not answer. Try again in a moment.');
  }
  await stepListings(deps.database, [listing.id], { proofLookedAt: deps.clock() });
  if (!texts.includes(listing.proofText))
    return refuse('not-proved', 'The text does not stand in the zone yet. A change there can take an hour to be seen.');
  await changing(deps, (tx) =>
    stepListings(tx, [listing.id], { proofBy: 'txt', provedAt: deps.clock(), status: 'in review' }, ['unproved']),
  );
  return true;
});

/** The texts of a name; a long one comes in pieces (RFC 1035 section 3.3.14) and is one text. */
async function textsOf(dns: DnsServer, ascii: string): Promise<string[]> {
  const { answers = [] } = await askDns(dns, ascii, 'TXT');
  return answers.flatMap((answer) =>
    answer.type === 'TXT'
      ? [
          [answer.data]
            .flat()
            .map((piece) => String(piece))
            .join(''),
        ]
      : [],
  );
}
