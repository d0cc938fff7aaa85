import type { MarketplaceListingState } from '@/connectors/marketplace/port';
import { type Rate, wholeUnit } from '@/core/money';
import { isRefusal, type Refusal } from '@/core/refusal';
import {
  checkListing,
  closingAt,
  costIn,
  type Finding,
  listingCost,
  type PricedName,
  sellingTerms,
  USUAL_AUCTION,
  usualIncrements,
} from '@/core/selling';
import { dayOf, type Instant } from '@/core/time';
import { type AuctionDraft, insertAuctions } from '@/database/auctions';
import { insertEntries } from '@/database/entries';
import { type ListingDraft, type ListingRow, selectListingsById, stepListings } from '@/database/listings';
import { type MarketplaceRow, selectMarketplaces } from '@/database/marketplaces';
import type { Transaction } from '@/database/pool';
import { selectRates } from '@/database/rates';
import { changing, recordIn } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { readRequest } from '../validate';
import { pricedNames } from './pricing';
import { SomeListings } from './requests';

/** What came of listing names: the listings, and what is wrong with those that were not sent. */
export interface Listed {
  readonly listingIds: readonly number[];
  readonly sent: number;
  readonly stopped: readonly { readonly ascii: string; readonly findings: readonly Finding[] }[];
}

/** Everything that is wrong with a listing at a marketplace; the same when it is saved, and when a kept draft is sent. */
export function findingsOf(
  listing: ListingDraft & Pick<ListingRow, 'sentAt'>,
  name: PricedName,
  marketplace: MarketplaceRow | null,
  rates: readonly Rate[],
  at: Instant,
): Finding[] {
  const { rules, unitMinor } = sellingTerms(marketplace, listing, listing.currency, rates, at);
  return checkListing({
    offered: listing,
    costMinor: costIn(name.spent, listing.currency, rates, at)?.minor ?? null,
    unitMinor,
    marketplace: rules,
    pitch: listing.pitch,
    description: listing.description,
    now: at,
    termEnd: name.termEnd,
    lockedUntil: name.lockedUntil,
    atAccount: name.atAccount,
  });
}

export function isDraft({ status }: Pick<ListingRow, 'status'>): boolean {
  return status === 'draft' || status === 'refused';
}

/** Puts listings on their way: to a marketplace's link, to be entered at a marketplace by hand, or live at once where the office sells. */
export async function sendWithin(
  tx: Transaction,
  deps: Deps,
  ids: readonly number[],
  marketplace: MarketplaceRow | null,
): Promise<void> {
  if (ids.length === 0) return;
  const at = deps.clock();
  const drafts = ['draft', 'refused'] as const;
  if (marketplace) await bookListingFees(tx, deps, ids, marketplace);
  if (marketplace?.linkUrl) await stepListings(tx, ids, { status: 'sending', sentAt: at, problem: null }, drafts);
  else if (marketplace) {
    await stepListings(tx, ids, { status: 'unproved', sentAt: at, problem: null }, drafts);
    // What lies in the marketplace's own account is known to be ours.
    const own = (await selectListingsById(tx, ids)).filter(({ accountId }) => accountId === marketplace.accountId);
    const step = { status: 'in review', proofBy: 'account', provedAt: at } as const;
    await stepListings(
      tx,
      own.map(({ id }) => id),
      step,
      ['unproved'],
    );
  } else {
    await stepListings(tx, ids, { status: 'live', sentAt: at, provedAt: at, seenLiveAt: at, problem: null }, drafts);
    await openOwnAuctions(tx, ids, at);
  }
}

/** Books what the marketplace takes for listing: its fee, a paid placement, further categories. Once for each listing, when it is first sent. */
export async function bookListingFees(
  tx: Transaction,
  deps: Deps,
  ids: readonly number[],
  marketplace: MarketplaceRow,
): Promise<void> {
  const at = deps.clock();
  const listings = await selectListingsById(tx, ids);
  const entries = listings.flatMap((listing) => {
    const minor = listingCost(marketplace, listing);
    return listing.sentAt === null && minor > 0
      ? [
          {
            nameId: listing.nameId,
            onDay: dayOf(at),
            kind: 'listing fee' as const,
            minor,
            currency: marketplace.feesCurrency,
            paymentMethod: marketplace.label,
            reference: `listing ${listing.id}`,
          },
        ]
      : [];
  });
  if (entries.length === 0) return;
  await insertEntries(tx, await recordIn(tx, deps, 'entry', `Listing fees at ${marketplace.label}`), entries);
}

/** Auctions that the office holds itself open the moment their listings are live. */
export async function openOwnAuctions(tx: Transaction, ids: readonly number[], at: Instant): Promise<void> {
  const listings = await selectListingsById(tx, ids);
  await insertAuctions(
    tx,
    listings.flatMap((listing) =>
      listing.status === 'live' ? auctionOf(listing, at, closingAt(at, listing.auctionDays), null) : [],
    ),
  );
}

/** The auction of a listing by the rules of its marketplace, or the office's own; none for a listing of another kind. */
export function auctionOf(
  { id, nameId, kind, currency, prices }: Pick<ListingRow, 'id' | 'nameId' | 'kind' | 'currency' | 'prices'>,
  opensAt: Instant,
  closesAt: Instant,
  marketplace: Pick<MarketplaceRow, 'wholeUnits' | 'extensionMinutes' | 'buyNowEnds'> | null,
): AuctionDraft[] {
  const { start, reserve, buyNow } = prices;
  return kind !== 'auction' || start === null
    ? []
    : [
        {
          listingId: id,
          nameId,
          atMarketplace: marketplace !== null,
          currency,
          opensAt,
          closesAt,
          startMinor: start,
          reserveMinor: reserve,
          buyNowMinor: buyNow,
          increments: usualIncrements(wholeUnit(currency)),
          wholeUnits: marketplace?.wholeUnits ?? true,
          extensionMinutes: marketplace?.extensionMinutes ?? USUAL_AUCTION.extensionMinutes,
          buyNowEnds: marketplace?.buyNowEnds ?? USUAL_AUCTION.buyNowEnds,
        },
      ];
}

/** Takes down how a listing stands at its marketplace. */
export async function takeState(
  tx: Transaction,
  deps: Deps,
  marketplace: MarketplaceRow,
  listing: Pick<ListingRow, 'id' | 'nameId' | 'currency' | 'prices' | 'kind'>,
  state: MarketplaceListingState,
  from: Parameters<typeof stepListings>[3],
): Promise<void> {
  await stepListings(
    tx,
    [listing.id],
    {
      status: state.status,
      ...(state.proof ? { proofHost: state.proof.host, proofText: state.proof.text } : {}),
      ...(state.provedBy ? { proofBy: state.provedBy, provedAt: deps.clock() } : {}),
      reviewUntil: state.reviewUntil,
      problem: state.reason,
      ...(state.status === 'live' ? { seenLiveAt: deps.clock() } : {}),
    },
    from,
  );
  if (state.auction && state.status === 'live')
    await insertAuctions(tx, auctionOf(listing, state.auction.opensAt, state.auction.closesAt, marketplace));
}

/** Sends drafts that were kept, those with which nothing is wrong by now. */
export const sendListings = command('sendListings', async (deps: Deps, input: unknown): Promise<Listed | Refusal> => {
  const request = await readRequest(SomeListings, input);
  if (isRefusal(request)) return request;
  const { database } = deps;
  const [marketplaces, rates, listings] = await Promise.all([
    selectMarketplaces(database),
    selectRates(database),
    selectListingsById(database, request.listingIds),
  ]);
  const names = await pricedNames(
    deps,
    listings.map(({ nameId }) => nameId),
  );
  const marketplaceOf = new Map(marketplaces.map((marketplace) => [marketplace.id, marketplace]));
  const known = new Map(names.map((name) => [name.nameId, name]));
  return changing(deps, async (tx) => {
    const drafts = (await selectListingsById(tx, request.listingIds)).filter(isDraft);
    const judged = drafts.flatMap((listing) => {
      const name = known.get(listing.nameId);
      const marketplace = listing.marketplaceId === null ? null : (marketplaceOf.get(listing.marketplaceId) ?? null);
      return name
        ? [{ listing, marketplace, findings: findingsOf(listing, name, marketplace, rates, deps.clock()) }]
        : [];
    });
    const stopped = judged.filter(({ findings }) => findings.some(({ stops }) => stops));
    const fine = judged.filter((one) => !stopped.includes(one));
    // Once for each marketplace, not for each listing.
    for (const marketplace of new Set(fine.map((one) => one.marketplace))) {
      const ids = fine.filter((one) => one.marketplace === marketplace).map(({ listing }) => listing.id);
      await sendWithin(tx, deps, ids, marketplace);
    }
    return {
      listingIds: drafts.map(({ id }) => id),
      sent: fine.length,
      stopped: stopped.map(({ listing, findings }) => ({ ascii: listing.ascii, findings })),
    };
  });
});
