import { refuse } from '@/core/refusal';
import type { AgendaItem } from '@/core/selling';
import { compute } from '@/usecases/computing';
import { type AuctionRow, auctionView, changeReserve, enterBid, offerToHighest } from '@/usecases/selling/auctions';
import { type BroughtSales, bringInSales, pastSales } from '@/usecases/selling/comparables';
import { followSelling } from '@/usecases/selling/follow';
import { type ListingRow, saveListings } from '@/usecases/selling/listings';
import { auctions, listing as listingById, listings, offers, sales } from '@/usecases/selling/lists';
import {
  answerOffer,
  buyerAnswers,
  enterOffer,
  negotiation,
  saveAnswerRule,
  type ThreadRow,
} from '@/usecases/selling/offers';
import { PlaceProof, ProveListing } from '@/usecases/selling/proofRequests';
import { lookForProof, placeProof, proveListing } from '@/usecases/selling/prove';
import {
  AnswerOffer,
  AnswerRuleForm,
  ChangeReserve,
  EnterBid,
  EnterOffer,
  HandOver,
  OfferToHighest,
  SaveListings,
  SomeListings,
  StepSale,
} from '@/usecases/selling/requests';
import { handOver, type SaleRow, stepSale, transferCode } from '@/usecases/selling/sales';
import { sendListings } from '@/usecases/selling/sendListings';
import { soldList, statementOf } from '@/usecases/selling/statement';
import { markSeenLive, withdrawListingsById } from '@/usecases/selling/withdraw';
import { idIn, textOf } from '../asked';
import { bodyOf, carriedOut, count, found, made, secret } from '../documents/answers';
import {
  agendaItem,
  auction,
  listed,
  listing,
  type PastSale,
  sale,
  sold,
  statement,
  thread,
} from '../documents/selling';
import { day, documentOf, from, list, money, text, whole, yesNo } from '../kinds';
import { type AnyOperation, type Asked, operation } from '../operation';

const theOffer = async ({ deps }: Asked, id: number) => found((await negotiation(deps, id))?.thread, 'offer');

const theAuction = async ({ deps }: Asked, id: number) => found((await auctionView(deps, id))?.auction, 'auction');

const theStatement = async ({ deps }: Asked, id: number) => found(await statementOf(deps, id), 'sale');

const follow = (deps: Asked['deps']) => followSelling(deps);

const someListings = (
  name: string,
  summary: string,
  work: (deps: Asked['deps'], body: unknown) => Promise<unknown>,
  told: boolean,
) =>
  operation<number>({
    method: 'POST',
    path: `/listings/${name}`,
    summary,
    body: SomeListings,
    answer: count,
    run: ({ deps, body }) => work(deps, body) as Promise<number>,
    ...(told ? { after: follow } : {}),
  });

export const SELLING: readonly AnyOperation[] = [
  operation({
    method: 'GET',
    path: '/selling/agenda',
    summary: 'What awaits the owner in selling, the most urgent first',
    answer: documentOf<readonly AgendaItem[]>()({
      items: from((items: readonly AgendaItem[]) => items, list(agendaItem)),
    }),
    run: ({ deps }) => compute(deps, 'sellingAgenda'),
  }),
  operation({
    method: 'POST',
    path: '/selling/follow',
    summary: 'Ask the marketplaces now what happened there',
    answer: carriedOut,
    run: async ({ deps }) => {
      await followSelling(deps);
      return true;
    },
  }),
  operation({
    method: 'GET',
    path: '/listings',
    summary: 'Every listing',
    answer: documentOf<ListingRow[]>()({ listings: from((rows: ListingRow[]) => rows, list(listing)) }),
    run: ({ deps }) => listings(deps),
  }),
  operation({
    method: 'POST',
    path: '/listings',
    summary: 'List names for sale or auction; prices are minor units of the currency of each',
    body: SaveListings,
    status: 201,
    answer: listed,
    run: ({ deps, body }) => saveListings(deps, body),
    after: follow,
  }),
  operation({
    method: 'GET',
    path: '/listings/{id}',
    summary: 'One listing',
    answer: listing,
    run: async (asked) => found(await listingById(asked.deps, idIn(asked)), 'listing'),
  }),
  operation({
    method: 'POST',
    path: '/listings/send',
    summary: 'Send drafts to their marketplaces',
    body: SomeListings,
    answer: listed,
    run: ({ deps, body }) => sendListings(deps, body),
    after: follow,
  }),
  someListings('withdraw', 'Take listings back', withdrawListingsById, true),
  someListings('seen-live', 'Say that listings were seen at their marketplaces', markSeenLive, false),
  operation({
    method: 'POST',
    path: '/listings/{listingId}/proof',
    summary: 'Take the text that a marketplace wants to see in the zone, and set it by link where that goes',
    body: PlaceProof,
    fills: { listingId: 'listingId' },
    answer: documentOf<{ readonly isSet: boolean }>()({ isSet: yesNo }),
    run: ({ deps, body }) => placeProof(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/listings/{id}/proof/look',
    summary: 'Look by DNS whether the text stands there',
    answer: carriedOut,
    run: (asked) => lookForProof(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'POST',
    path: '/listings/{listingId}/prove',
    summary: 'Prove to the marketplace that the name is ours',
    body: ProveListing,
    fills: { listingId: 'listingId' },
    answer: carriedOut,
    run: ({ deps, body }) => proveListing(deps, body),
  }),
  operation({
    method: 'GET',
    path: '/offers',
    summary: 'Every thread of offers',
    answer: documentOf<ThreadRow[]>()({ offers: from((rows: ThreadRow[]) => rows, list(thread)) }),
    run: ({ deps }) => offers(deps),
  }),
  operation({
    method: 'POST',
    path: '/offers',
    summary: 'Write down an offer that came by mail or telephone',
    body: EnterOffer,
    status: 201,
    answer: made,
    run: ({ deps, body }) => enterOffer(deps, body),
  }),
  operation({
    method: 'GET',
    path: '/offers/{threadId}',
    summary: 'One thread of offers',
    answer: thread,
    run: (asked) => theOffer(asked, idIn(asked, 'threadId')),
  }),
  operation({
    method: 'POST',
    path: '/offers/{threadId}/answer',
    summary: 'Accept, counter or decline the figure that stands',
    body: AnswerOffer,
    fills: { threadId: 'threadId' },
    spends: true,
    answer: thread,
    run: ({ deps, body }) => answerOffer(deps, body),
    after: follow,
  }),
  operation({
    method: 'POST',
    path: '/offers/{threadId}/buyer',
    summary: 'Say how a buyer has answered our figure',
    bodySchema: bodyOf({ answer: { type: 'string', enum: ['accept', 'decline'] } }),
    answer: thread,
    run: (asked) => {
      const answer = textOf(asked, 'answer');
      return answer === 'accept' || answer === 'decline'
        ? buyerAnswers(asked.deps, idIn(asked, 'threadId'), answer)
        : Promise.resolve(refuse('request-invalid', 'answer is accept or decline.', 'answer'));
    },
    after: follow,
  }),
  operation({
    method: 'PUT',
    path: '/answer-rule',
    summary: 'The rule by which offers are answered',
    body: AnswerRuleForm,
    answer: carriedOut,
    run: ({ deps, body }) => saveAnswerRule(deps, body),
  }),
  operation({
    method: 'GET',
    path: '/auctions',
    summary: 'Every auction with its bids',
    answer: documentOf<AuctionRow[]>()({ auctions: from((rows: AuctionRow[]) => rows, list(auction)) }),
    run: ({ deps }) => auctions(deps),
  }),
  operation({
    method: 'GET',
    path: '/auctions/{auctionId}',
    summary: 'One auction',
    answer: auction,
    run: (asked) => theAuction(asked, idIn(asked, 'auctionId')),
  }),
  operation({
    method: 'POST',
    path: '/auctions/{auctionId}/bids',
    summary: 'Write down a bid that was given to the office',
    body: EnterBid,
    fills: { auctionId: 'auctionId' },
    status: 201,
    answer: auction,
    run: ({ deps, body }) => enterBid(deps, body),
  }),
  operation({
    method: 'PUT',
    path: '/auctions/{auctionId}/reserve',
    summary: 'Lower the reserve, or take it away',
    body: ChangeReserve,
    fills: { auctionId: 'auctionId' },
    answer: auction,
    run: ({ deps, body }) => changeReserve(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/auctions/{auctionId}/offer-to-highest',
    summary: 'Offer the name to the highest bidder after an auction that missed its reserve',
    body: OfferToHighest,
    fills: { auctionId: 'auctionId' },
    status: 201,
    answer: made,
    run: ({ deps, body }) => offerToHighest(deps, body),
    after: follow,
  }),
  operation({
    method: 'GET',
    path: '/sales',
    summary: 'Every sale, under way and ended',
    answer: documentOf<SaleRow[]>()({ sales: from((rows: SaleRow[]) => rows, list(sale)) }),
    run: ({ deps }) => sales(deps),
  }),
  operation({
    method: 'GET',
    path: '/sales/{saleId}',
    summary: 'One sale with its statement',
    answer: statement,
    run: (asked) => theStatement(asked, idIn(asked, 'saleId')),
  }),
  operation({
    method: 'POST',
    path: '/sales/{saleId}/steps',
    summary: 'Take a sale on by a step that was seen',
    body: StepSale,
    fills: { saleId: 'saleId' },
    answer: sale,
    run: ({ deps, body }) => stepSale(deps, body),
    after: follow,
  }),
  operation({
    method: 'POST',
    path: '/sales/{saleId}/hand-over',
    summary: 'Hand the name over to its buyer',
    body: HandOver,
    fills: { saleId: 'saleId' },
    spends: true,
    answer: sale,
    run: ({ deps, body }) => handOver(deps, body),
    after: follow,
  }),
  operation({
    method: 'POST',
    path: '/sales/{saleId}/code',
    isSecret: true,
    summary: 'The code by which the buyer transfers the name, as a person would ask for it',
    answer: secret,
    run: (asked) => transferCode(asked.deps, idIn(asked, 'saleId')),
  }),
  operation({
    method: 'GET',
    path: '/sold',
    summary: 'What was sold, with proceeds, profit and return',
    answer: sold,
    run: ({ deps }) => soldList(deps),
  }),
  operation({
    method: 'GET',
    path: '/past-sales',
    summary: 'Sales of others and of the office, to hold names against',
    answer: documentOf<PastSale[]>()({
      sales: from(
        (rows: PastSale[]) => rows,
        list(
          documentOf<PastSale>()({
            name: from(({ ascii }: PastSale) => ascii, text),
            price: money,
            day,
            marketplace: text,
            own: yesNo,
          }),
        ),
      ),
    }),
    run: ({ deps }) => pastSales(deps),
  }),
  operation({
    method: 'POST',
    path: '/past-sales',
    summary: 'Bring in a list of past sales (CSV)',
    bodySchema: bodyOf({ text: { type: 'string' }, currency: { type: 'string', pattern: '^[A-Z]{3}$' } }),
    answer: documentOf<BroughtSales>()({
      added: whole,
      known: whole,
      refused: list(documentOf<{ line: number; problem: string }>()({ line: whole, problem: text })),
    }),
    run: (asked) => bringInSales(asked.deps, textOf(asked, 'text'), textOf(asked, 'currency')),
  }),
];
