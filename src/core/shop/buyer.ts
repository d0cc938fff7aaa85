import { type Figure, type Handover, liveFigure, type SaleStage, type ThreadState } from '../selling';
import type { Instant } from '../time';
import type { Language } from './languages';
import type { LetterKind } from './letter';
import { moment, money } from './say';
import { fill, type ShopTexts, type TextKey } from './texts';

/** What a buyer sees of what he has sent, on a page of his own. Amounts are minor units of `currency`. */
export interface BuyerView {
  readonly name: string;
  readonly kind: LetterKind;
  readonly currency: string;
  readonly minor: number;
  readonly message: string;
  readonly confirmed: boolean;
  /** Until when it may be confirmed. */
  readonly confirmUntil: Instant;
  readonly thread: { readonly state: ThreadState; readonly figures: readonly BuyerFigure[] } | null;
  readonly bid: BuyerBid | null;
  readonly sale: BuyerSale | null;
  /** Whether the name can still be had: another figure may be sent. */
  readonly forSale: boolean;
  readonly now: Instant;
}

export type BuyerFigure = Figure & { readonly id: number };

export interface BuyerBid {
  /** The most that counts; `null` while none does. */
  readonly placedMinor: number | null;
  readonly depositMinor: number;
  readonly heldMinor: number;
  /** Why the last was not taken, by its code. */
  readonly refused: string | null;
  readonly priceMinor: number | null;
  readonly leastMinor: number;
  readonly leads: boolean;
  readonly closesAt: Instant;
  /** Whether it has ended, and with a sale to anybody. */
  readonly ended: 'no' | 'sold' | 'unsold';
}

export interface BuyerSale {
  readonly stage: SaleStage;
  readonly priceMinor: number;
  readonly currency: string;
  readonly handover: Handover | null;
  /** The registrar at which the name is. */
  readonly registrar: string;
}

/** How a buyer's matter stands. */
export type BuyerState =
  | 'asked'
  | 'link over'
  | 'with us'
  | 'your turn'
  | 'promised'
  | 'declined'
  | 'withdrawn'
  | 'lapsed'
  | 'deposit wanted'
  | 'leads'
  | 'outbid'
  | 'bid refused'
  | 'lost'
  | 'unsold'
  | 'sale';

export function buyerState(view: BuyerView): BuyerState {
  if (!view.confirmed) return view.now < view.confirmUntil ? 'asked' : 'link over';
  if (view.sale !== null) return 'sale';
  const { thread } = view;
  // What is offered to a bidder once the auction has ended goes on as every other thread.
  if (view.bid !== null && thread === null) return bidState(view.bid, view.minor);
  if (thread === null) return 'link over';
  if (thread.state === 'waiting') return 'promised';
  if (thread.state !== 'open') return thread.state === 'accepted' ? 'with us' : thread.state;
  const live = liveFigure(thread.figures, view.now);
  return live === null ? 'lapsed' : live.by === 'owner' ? 'your turn' : 'with us';
}

function bidState(bid: BuyerBid, wantedMinor: number): BuyerState {
  if (bid.ended !== 'no') return bid.ended === 'sold' ? 'lost' : 'unsold';
  if (wantedMinor > (bid.placedMinor ?? 0)) {
    if (bid.refused !== null) return 'bid refused';
    if (bid.depositMinor > bid.heldMinor) return 'deposit wanted';
  }
  return bid.leads ? 'leads' : 'outbid';
}

/** Nothing more comes of it unless the buyer begins again. */
const OVER: ReadonlySet<BuyerState> = new Set(['link over', 'declined', 'withdrawn', 'lapsed', 'lost', 'unsold']);
const OVER_SALES: ReadonlySet<SaleStage> = new Set(['done', 'not paid', 'refused']);

export function isOver(view: BuyerView): boolean {
  return OVER.has(buyerState(view)) || (view.sale !== null && OVER_SALES.has(view.sale.stage));
}

/** What a buyer may do now. */
export const BUYER_ACTS = ['confirm', 'accept', 'decline', 'withdraw', 'counter', 'raise', 'where', 'arrived'] as const;
export type BuyerAct = (typeof BUYER_ACTS)[number];

const ACTS: Readonly<Record<BuyerState, readonly BuyerAct[]>> = {
  asked: ['confirm'],
  'link over': [],
  'with us': ['counter', 'withdraw'],
  'your turn': ['accept', 'counter', 'decline'],
  promised: ['withdraw'],
  declined: ['counter'],
  withdrawn: [],
  lapsed: ['counter'],
  'deposit wanted': ['raise'],
  leads: ['raise'],
  outbid: ['raise'],
  'bid refused': ['raise'],
  lost: [],
  unsold: [],
  sale: [],
};

export function buyerActs(view: BuyerView): readonly BuyerAct[] {
  if (view.sale?.stage === 'money held') return ['where'];
  if (view.sale?.stage === 'handed over') return ['arrived'];
  return ACTS[buyerState(view)].filter((act) => act !== 'counter' || view.forSale);
}

const STAGE_TEXTS: Readonly<Record<SaleStage, TextKey>> = {
  agreed: 'pay',
  'money held': 'where',
  'buyer known': 'stageBuyer',
  'handed over': 'handedPush',
  arrived: 'stageArrived',
  done: 'stageDone',
  'not paid': 'stageNotPaid',
  refused: 'stageRefused',
  dispute: 'stageDispute',
};

const STATE_TEXTS: Readonly<Partial<Record<BuyerState, TextKey>>> = {
  'link over': 'linkOver',
  'with us': 'waitForUs',
  'your turn': 'waitForYou',
  promised: 'promisedElsewhere',
  declined: 'threadDeclined',
  withdrawn: 'threadWithdrawn',
  lapsed: 'threadLapsed',
  lost: 'bidLost',
  unsold: 'bidUnsold',
  outbid: 'bidOutbid',
  leads: 'bidLeads',
  'deposit wanted': 'bidWaitsDeposit',
  'bid refused': 'bidRefused',
};

const CONFIRM_TEXTS: Readonly<Record<LetterKind, TextKey>> = {
  offer: 'confirmOffer',
  purchase: 'confirmPurchase',
  bid: 'confirmBid',
};

/** How it stands, in a sentence or two of the buyer's language: on his page, and in the mails. */
export function standingSaid(view: BuyerView, texts: ShopTexts, language: Language): string {
  const say = (minor: number, currency = view.currency) => money(minor, currency, language);
  const { sale, bid, name } = view;
  const state = buyerState(view);
  if (state === 'asked') return fill(texts[CONFIRM_TEXTS[view.kind]], { name, amount: say(view.minor) });
  if (sale !== null) {
    const key =
      sale.stage === 'handed over' && sale.handover === 'transfer' ? 'handedTransfer' : STAGE_TEXTS[sale.stage];
    const amount = say(sale.priceMinor, sale.currency);
    const said = fill(texts[key], { name, amount });
    return sale.stage === 'agreed' ? `${fill(texts.soldAt, { name, amount })} ${said}` : said;
  }
  const key = STATE_TEXTS[state] ?? 'waitForUs';
  return fill(texts[key], {
    name,
    amount: say(amountSaid(view, state)),
    most: say(bid?.placedMinor ?? view.minor),
    deposit: say((bid?.depositMinor ?? 0) - (bid?.heldMinor ?? 0)),
    text: refusedSaid(bid, texts, say),
  });
}

/** The amount that the sentence of a state is about. */
function amountSaid({ minor, bid, thread }: BuyerView, state: BuyerState): number {
  if (state === 'deposit wanted') return minor;
  return (
    (thread === null ? bid?.priceMinor : undefined) ??
    thread?.figures.findLast(({ state: of }) => of === 'live')?.minor ??
    minor
  );
}

function refusedSaid(bid: BuyerBid | null, texts: ShopTexts, say: (minor: number) => string): string {
  return bid?.refused === 'bid-too-low' ? fill(texts.nextBid, { amount: say(bid.leastMinor) }) : texts.notNow;
}

/** When the live figure lapses, said; empty where none is live or it has no date. */
export function untilSaid({ thread, now }: BuyerView, texts: ShopTexts, language: Language): string {
  const live = thread && liveFigure(thread.figures, now);
  return live?.lapsesAt ? fill(texts.until, { time: moment(live.lapsesAt, language) }) : '';
}

/** What a buyer is mailed. */
export interface News {
  /** Told once. */
  readonly key: string;
  readonly subject: TextKey;
  readonly text: TextKey;
}

const news = (key: string, subject: TextKey, text: TextKey = 'mailNews'): News => ({ key, subject, text });
/** What a buyer has brought about himself is no news to him. */
const TOLD_STAGES: ReadonlySet<SaleStage> = new Set([
  'agreed',
  'money held',
  'handed over',
  'done',
  'not paid',
  'refused',
  'dispute',
]);

/** What is to be mailed now, told `told` last; `null` where that is nothing, or he has done it himself. */
export function newsFor(view: BuyerView, told: string | null): News | null {
  const found = newsOf(view, told);
  return found === null || found.key === told ? null : found;
}

function newsOf(view: BuyerView, told: string | null): News | null {
  const state = buyerState(view);
  const last = view.thread?.figures.at(-1);
  switch (state) {
    case 'asked':
      return news('confirm', 'mailConfirmSubject', 'mailConfirm');
    case 'sale':
      return view.sale && TOLD_STAGES.has(view.sale.stage) ? news(`sale ${view.sale.stage}`, 'mailSaleSubject') : null;
    case 'your turn':
      return news(`figure ${last?.id}`, 'mailAnswerSubject', 'mailAnswer');
    case 'declined':
      return last?.by === 'buyer' ? news(`declined ${last.id}`, 'mailAnswerSubject') : null;
    case 'promised':
    case 'lapsed':
      return news(state, 'mailAnswerSubject');
    case 'with us':
      return told === 'promised' ? news('with us', 'mailAnswerSubject') : null;
    case 'deposit wanted':
      return news(`deposit ${view.bid?.depositMinor}`, 'mailBidSubject');
    case 'outbid':
      return news(`outbid ${view.bid?.placedMinor}`, 'mailBidSubject');
    case 'leads':
      // He knows of a bid of his that counts at once; not of one that has waited for its deposit.
      return told?.startsWith('deposit') ? news(`leads ${view.bid?.placedMinor}`, 'mailBidSubject') : null;
    case 'bid refused':
      return news(`refused ${view.minor}`, 'mailBidSubject');
    case 'lost':
    case 'unsold':
      return view.bid?.placedMinor === null ? null : news(state, 'mailBidSubject');
    case 'link over':
    case 'withdrawn':
      return null;
  }
}
