import {
  AGENDA_KINDS,
  type AgendaItem,
  FIGURE_STATES,
  LISTING_KINDS,
  LISTING_STATES,
  SALE_EXITS,
  SALE_STAGES,
  THREAD_STATES,
} from '@/core/selling';
import { formatDay } from '@/core/time';
import type { AuctionRow } from '@/usecases/selling/auctions';
import type { pastSales } from '@/usecases/selling/comparables';
import type { ListingRow } from '@/usecases/selling/listings';
import type { ThreadRow } from '@/usecases/selling/offers';
import type { SaleRow } from '@/usecases/selling/sales';
import type { Listed } from '@/usecases/selling/sendListings';
import type { SoldLine, SoldList, SoldTotal, Statement } from '@/usecases/selling/statement';
import {
  amountOf,
  day,
  documentOf,
  figure,
  from,
  instant,
  list,
  money,
  named,
  oneOf,
  orNull,
  termEnd,
  text,
  whole,
  yesNo,
} from '../kinds';
import { type Ground, grounds } from './answers';

const priced = (price: keyof ListingRow['prices']) =>
  amountOf(({ prices, currency }: ListingRow) => ({ minor: prices[price], currency }));

export const listing = named(
  'Listing',
  documentOf<ListingRow>()({
    id: whole,
    name: from(({ ascii }: ListingRow) => ascii, text),
    marketplaceId: orNull(whole),
    marketplace: orNull(text),
    kind: oneOf(...LISTING_KINDS),
    status: oneOf(...LISTING_STATES),
    minimum: priced('minimum'),
    start: priced('start'),
    reserve: priced('reserve'),
    asking: priced('asking'),
    buyNow: priced('buyNow'),
    auctionDays: whole,
    reserveShown: yesNo,
    categories: list(text),
    pitch: text,
    description: text,
    problem: orNull(text),
    madeAt: instant,
    sentAt: orNull(instant),
    seenLiveAt: orNull(instant),
    provedAt: orNull(instant),
    termEnd: orNull(termEnd),
  }),
);

type FigureRow = ThreadRow['figures'][number];

export const thread = named(
  'Offer',
  documentOf<ThreadRow>()({
    id: whole,
    name: from(({ ascii }: ThreadRow) => ascii, text),
    marketplace: orNull(text),
    buyer: text,
    contact: text,
    state: oneOf(...THREAD_STATES),
    madeAt: instant,
    note: text,
    asking: orNull(money),
    figures: from(
      ({ figures, currency }: ThreadRow) => figures.map((one) => ({ ...one, currency })),
      list(
        documentOf<FigureRow & { currency: string }>()({
          id: whole,
          by: oneOf('buyer', 'owner'),
          amount: amountOf(({ minor, currency }) => ({ minor, currency })),
          at: instant,
          lapsesAt: orNull(instant),
          state: oneOf(...FIGURE_STATES),
          byRule: yesNo,
          note: text,
          person: orNull(text),
        }),
      ),
    ),
  }),
);

type Bid = AuctionRow['bids'][number];

export const auction = named(
  'Auction',
  documentOf<AuctionRow>()({
    id: whole,
    listingId: whole,
    name: from(({ ascii }: AuctionRow) => ascii, text),
    marketplace: orNull(text),
    opensAt: instant,
    closesAt: instant,
    start: amountOf(({ startMinor: minor, currency }: AuctionRow) => ({ minor, currency })),
    reserve: amountOf(({ reserveMinor: minor, currency }: AuctionRow) => ({ minor, currency })),
    buyNow: amountOf(({ buyNowMinor: minor, currency }: AuctionRow) => ({ minor, currency })),
    price: amountOf(({ priceMinor: minor, currency }: AuctionRow) => ({ minor, currency })),
    leader: orNull(text),
    reserveMet: yesNo,
    cancelled: yesNo,
    outcome: from(({ outcome }: AuctionRow) => outcome as string | null, orNull(text)),
    closedAt: orNull(instant),
    bids: from(
      ({ bids, currency }: AuctionRow) => bids.map((bid) => ({ ...bid, currency })),
      list(
        documentOf<Bid & { currency: string }>()({
          id: whole,
          bidder: text,
          price: amountOf(({ priceMinor: minor, currency }) => ({ minor, currency })),
          most: amountOf(({ maxMinor: minor, currency }) => ({ minor, currency })),
          at: instant,
        }),
      ),
    ),
  }),
);

export const sale = named(
  'Sale',
  documentOf<SaleRow>()({
    id: whole,
    name: from(({ ascii }: SaleRow) => ascii, text),
    account: text,
    marketplace: orNull(text),
    how: oneOf('offer', 'bid', 'buy now'),
    buyer: text,
    price: amountOf(({ priceMinor: minor, currency }: SaleRow) => ({ minor, currency })),
    stage: oneOf(...SALE_STAGES, ...SALE_EXITS),
    agreedAt: instant,
    stageSince: instant,
    dueAt: orNull(instant),
    handover: orNull(oneOf('push', 'transfer')),
    buyerAccount: orNull(text),
    commission: amountOf(({ commissionMinor: minor, currency }: SaleRow) => ({ minor, currency })),
    fees: amountOf(({ feesMinor: minor, currency }: SaleRow) => ({ minor, currency })),
    note: text,
  }),
);

const statementRests = ({ told, rates, costs, net }: Statement): Ground[] => [
  ...(net
    ? [
        {
          what: told ? 'what the marketplace has told of commission and fees' : 'the terms of the marketplace',
          asOf: null,
        },
      ]
    : []),
  ...(costs.length > 0 ? [{ what: `${costs.length} entries of what was spent on the name`, asOf: null }] : []),
  ...rates.map((rate) => ({ what: `1 ${rate.currency} = ${rate.factor} ${rate.into}`, asOf: formatDay(rate.from) })),
];

type Step = Statement['steps'][number];

export const statement = named(
  'Statement',
  documentOf<Statement>()({
    sale,
    steps: list(documentOf<Step>()({ at: instant, stage: text, origin: text, note: text })),
    proceeds: amountOf(({ net, sale: { currency } }: Statement) => ({ minor: net?.proceedsMinor, currency })),
    commission: amountOf(({ net, sale: { currency } }: Statement) => ({ minor: net?.commissionMinor, currency })),
    fees: amountOf(({ net, sale: { currency } }: Statement) => ({ minor: net?.feesMinor, currency })),
    cost: orNull(money),
    profit: orNull(money),
    yearlyReturn: orNull(figure),
    heldDays: orNull(whole),
    restsOn: from(statementRests, grounds),
  }),
);

export const agendaItem = named(
  'SellingAgendaItem',
  documentOf<AgendaItem>()({
    kind: oneOf(...AGENDA_KINDS),
    name: from(({ ascii }: AgendaItem) => ascii, text),
    by: orNull(instant),
    amount: amountOf(({ minor, currency }: AgendaItem) => ({ minor, currency })),
    asking: orNull(money),
    who: text,
  }),
);

export const sold = named(
  'SoldNames',
  documentOf<SoldList>()({
    lines: list(
      documentOf<SoldLine>()({
        id: whole,
        name: from(({ ascii }: SoldLine) => ascii, text),
        marketplace: text,
        buyer: text,
        soldOn: day,
        price: money,
        proceeds: orNull(money),
        profit: orNull(money),
        yearlyReturn: orNull(figure),
        heldDays: orNull(whole),
      }),
    ),
    totals: list(
      documentOf<SoldTotal>()({
        by: oneOf('year', 'ending', 'marketplace', 'currency'),
        key: text,
        count: whole,
        proceeds: orNull(money),
        profit: orNull(money),
      }),
    ),
    restsOn: from(
      ({ homeCurrency }: SoldList): Ground[] => [
        {
          what: `entries and statements; other currencies in ${homeCurrency} by the rate of the day of sale`,
          asOf: null,
        },
      ],
      grounds,
    ),
  }),
);

export const listed = named(
  'Listed',
  documentOf<Listed>()({
    listingIds: list(whole),
    sent: whole,
    stopped: list(
      documentOf<Listed['stopped'][number]>()({
        name: from(({ ascii }: Listed['stopped'][number]) => ascii, text),
        why: from(({ findings }: Listed['stopped'][number]) => findings.map(({ code }) => code as string), list(text)),
      }),
    ),
  }),
);

export type PastSale = Awaited<ReturnType<typeof pastSales>>[number];
