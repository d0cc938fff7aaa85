import { type Amount, amount, formatDecimal } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import {
  type AnswerRule,
  costIn,
  counterLapses,
  hasFailed,
  liveFigure,
  type MarketplaceFees,
  refuseAnswer,
  sellingTerms,
} from '@/core/selling';
import { dayIn, endOfDay, type Instant, parseDay } from '@/core/time';
import { type ListingRow, selectListings, selectSaleNames } from '@/database/listings';
import { selectMarketplace } from '@/database/marketplaces';
import {
  hasLapsed,
  insertFigure,
  lapseFigures,
  lockThread,
  noteBestOffers,
  selectThread,
  selectThreads,
  setFigure,
  setThread,
  type ThreadRow,
} from '@/database/offers';
import type { Transaction } from '@/database/pool';
import { selectRates } from '@/database/rates';
import { selectSalesOf } from '@/database/sales';
import { selectSettings, upsertSettings } from '@/database/settings';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import type { Weighty } from '../people/secondPerson';
import { readRequest } from '../validate';
import { readPrice } from './readPrice';
import { accept, listingFor, receiveOffer } from './receiveOffer';
import { AnswerOffer, AnswerRuleForm, EnterOffer } from './requests';

export type { ThreadRow } from '@/database/offers';

/** The last day of a figure, in the office's zone, as the instant at which it lapses: the end of that day; `null` where none was written. */
function lapseAfter(until: string | undefined, now: Instant, zone: string): Instant | null | Refusal {
  if (until === undefined) return null;
  const day = parseDay(until);
  return day === null || day < dayIn(now, zone)
    ? refuse('date-out-of-range', 'Write the last day on which it stands, like 2026-12-09, today or later.', 'until')
    : endOfDay(day, zone);
}

/** Enters an offer that came by mail or telephone; answers its thread. */
export const enterOffer = command('enterOffer', async (deps: Deps, input: unknown): Promise<number | Refusal> => {
  const request = await readRequest(EnterOffer, input);
  if (isRefusal(request)) return request;
  const price = readPrice(request.amount, request.currency, 'amount');
  if (isRefusal(price)) return price;
  if (price === null) return refuse('price-invalid', 'Write what is offered, like 1200.', 'amount');
  const lapsesAt = lapseAfter(request.until, deps.clock(), (await selectSettings(deps.database)).zone);
  if (isRefusal(lapsesAt)) return lapsesAt;
  return changing(deps, async (tx) => {
    if ((await selectSaleNames(tx, [request.nameId])).length === 0)
      return refuse('name-not-in-ledger', 'This name is no longer in the ledger. Load the page again.');
    const known = request.threadId === undefined ? null : await lockThread(tx, request.threadId);
    if (request.threadId !== undefined && (known?.ref !== null || known.nameId !== request.nameId))
      return refuse('thread-unknown', 'This thread is not kept by hand. Answer it where it is held.');
    if (known && known.currency !== request.currency)
      return refuse('thread-currency', `This thread is held in ${known.currency}.`, 'currency');
    return receiveOffer(tx, deps, {
      nameId: request.nameId,
      marketplaceId: null,
      threadId: known?.id ?? null,
      threadRef: null,
      figureRef: null,
      buyer: request.buyer,
      contact: request.contact ?? '',
      minor: price.minor,
      currency: request.currency,
      lapsesAt,
      note: request.note ?? '',
      at: deps.clock(),
    });
  });
});

/** To accept sells a name: that wants a second person. Countering and declining do not. */
async function weightOfAnswer(deps: Deps, input: unknown): Promise<Weighty | null> {
  const request = await readRequest(AnswerOffer, input);
  if (isRefusal(request) || request.answer !== 'accept') return null;
  const thread = await selectThread(deps.database, request.threadId);
  const figure = thread?.figures.find(({ id }) => id === request.figureId);
  if (!thread || !figure) return null;
  const price = `${formatDecimal(amount(figure.minor, thread.currency))} ${thread.currency}`;
  return { what: `Sell ${thread.unicode} for ${price}`, isGrave: true, spendsMinor: 0 };
}

/** Answers the live figure of a thread: accepted once, countered with another figure, or declined. */
export const answerOffer = command(
  'answerOffer',
  async (deps: Deps, input: unknown): Promise<ThreadRow | Refusal> => {
    const request = await readRequest(AnswerOffer, input);
    if (isRefusal(request)) return request;
    return changing(deps, async (tx) => {
      const thread = await lockThread(tx, request.threadId);
      if (!thread) return refuse('thread-unknown', 'This thread is no longer there. Load the page again.');
      if (thread.state === 'waiting')
        return refuse(
          'name-promised',
          'The name is promised to somebody else. This thread waits until that sale is paid or fails.',
        );
      const live = thread.figures.findLast(({ state }) => state === 'live');
      if (live && live.id !== request.figureId)
        return refuse('figure-answered', 'The figure has changed since. Load the page again.');
      const refused = refuseAnswer(thread.figures, 'owner', deps.clock());
      // A counter may replace one's own figure that still stands.
      if (refused && !(request.answer === 'counter' && refused.code === 'own-figure')) return refused;
      const done = await carryOutAnswer(tx, deps, thread, request);
      if (isRefusal(done)) return done;
      await noteBestOffers(tx, [thread.nameId]);
      return (await selectThread(tx, thread.id)) as ThreadRow;
    });
  },
  weightOfAnswer,
);

async function carryOutAnswer(
  tx: Transaction,
  deps: Deps,
  thread: ThreadRow,
  { answer, figureId, amount, until }: AnswerOffer,
): Promise<unknown> {
  const isAtMarketplace = thread.ref !== null;
  switch (answer) {
    case 'accept': {
      const listing = listingFor(await selectListings(tx, [thread.nameId]), thread.marketplaceId);
      const figure = thread.figures.find(({ id }) => id === figureId);
      return accept(tx, deps, thread, figureId, figure?.minor ?? 0, 'by hand', listing);
    }
    case 'decline':
      await setFigure(tx, figureId, 'declined', isAtMarketplace ? 'decline' : null);
      return setThread(tx, thread.id, 'declined');
    case 'counter': {
      const price = readPrice(amount, thread.currency, 'amount');
      if (isRefusal(price)) return price;
      if (price === null) return refuse('price-invalid', 'Write your figure, like 1200.', 'amount');
      const buyers = thread.figures.findLast(({ by }) => by === 'buyer');
      if (buyers && price.minor <= buyers.minor)
        return refuse('counter-too-low', 'That is no more than was offered: accept the offer instead.', 'amount');
      const lapsesAt = lapseAfter(until, deps.clock(), (await selectSettings(tx)).zone);
      if (isRefusal(lapsesAt)) return lapsesAt;
      return insertFigure(tx, thread.id, {
        by: 'owner',
        minor: price.minor,
        at: deps.clock(),
        lapsesAt: lapsesAt ?? counterLapses(deps.clock()),
        ref: null,
        tell: isAtMarketplace,
      });
    }
  }
}

/** What the buyer of a thread that is kept by hand said to the owner's figure: yes, or no more. */
export const buyerAnswers = command(
  'buyerAnswers',
  async (deps: Deps, threadId: number, answer: 'accept' | 'decline'): Promise<ThreadRow | Refusal> => {
    return changing(deps, async (tx) => {
      const thread = await lockThread(tx, threadId);
      if (!thread || thread.ref !== null)
        return refuse('thread-unknown', 'This thread is not kept by hand. Answer it where it is held.');
      return answerForBuyer(tx, deps, thread, answer, 'by hand');
    });
  },
);

/** Takes down what a buyer says to the owner's figure in a thread that is locked: the name is committed where he accepts. */
export async function answerForBuyer(
  tx: Transaction,
  deps: Deps,
  thread: ThreadRow,
  answer: 'accept' | 'decline',
  origin: 'by hand' | 'buyer',
): Promise<ThreadRow | Refusal> {
  const live = thread.figures.findLast(({ state }) => state === 'live');
  const refused = refuseAnswer(thread.figures, 'buyer', deps.clock());
  if (refused || !live)
    return refused ?? refuse('no-live-figure', 'There is no figure to answer in this thread any more.');
  if (answer === 'accept') {
    const listing = listingFor(await selectListings(tx, [thread.nameId]), null);
    const sale = await accept(tx, deps, thread, live.id, live.minor, origin, listing);
    if (isRefusal(sale)) return sale;
  } else {
    await setFigure(tx, live.id, 'declined');
    await setThread(tx, thread.id, 'declined');
  }
  return (await selectThread(tx, thread.id)) as ThreadRow;
}

/** Ends a thread that was not accepted by its buyer: he takes his figure back, or declines the owner's. */
export async function withdrawThread(tx: Transaction, thread: ThreadRow): Promise<void> {
  const live = thread.figures.findLast(({ state }) => state === 'live');
  if (live) await setFigure(tx, live.id, 'declined');
  await setThread(tx, thread.id, live?.by === 'buyer' ? 'withdrawn' : 'declined');
  await noteBestOffers(tx, [thread.nameId]);
}

/** Marks what has lapsed since somebody last looked. */
export async function lapseOffers(deps: Deps): Promise<void> {
  if (!(await hasLapsed(deps.database, deps.clock()))) return;
  await changing(deps, async (tx) => {
    const names = await lapseFigures(tx, deps.clock());
    await noteBestOffers(tx, names);
  });
}

export function threadsOf(deps: Deps, nameId: number): Promise<ThreadRow[]> {
  return selectThreads(deps.database, [nameId]);
}

/** Sets how offers are answered without the owner, or that they are not. */
export const saveAnswerRule = command('saveAnswerRule', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const form = await readRequest(AnswerRuleForm, input);
  if (isRefusal(form)) return form;
  const { isOn, acceptFrom, counterWith, counterDays } = form;
  if (isOn && acceptFrom === undefined && counterWith === undefined)
    return refuse('rule-empty', 'Write from which share to accept, or with which share to counter.', 'acceptFrom');
  const answerRule = isOn
    ? {
        acceptFrom: acceptFrom === undefined ? null : acceptFrom / 100,
        counterWith: counterWith === undefined ? null : counterWith / 100,
        counterDays,
      }
    : null;
  await changing(deps, (tx) => upsertSettings(tx, { answerRule }));
  return true;
});

/** A thread with what its answer has to be weighed against. */
export interface Negotiation {
  readonly thread: ThreadRow;
  readonly listing: ListingRow | null;
  /** What the name has cost, in the currency of the thread; `null` when a rate is missing. */
  readonly cost: Amount | null;
  /** `null` when a rate is missing. */
  readonly fees: MarketplaceFees | null;
  readonly unitMinor: number;
  /** The sale that it led to, or that the name is promised to. */
  readonly saleId: number | null;
  /** Others who stand for the same name, the highest first where they speak one currency. */
  readonly rivals: readonly Rival[];
  readonly now: Instant;
}

/** Somebody else’s live figure on the same name. */
export interface Rival {
  readonly threadId: number;
  readonly buyer: string;
  readonly marketplace: string | null;
  readonly minor: number;
  readonly currency: string;
  /** The figure is ours, and waits for that buyer. */
  readonly isOurs: boolean;
  readonly lapsesAt: Instant | null;
}

export async function negotiation(deps: Deps, threadId: number): Promise<Negotiation | null> {
  const { database } = deps;
  const thread = await selectThread(database, threadId);
  if (!thread) return null;
  const [listings, [name], rates, marketplace, sales, threads] = await Promise.all([
    selectListings(database, [thread.nameId]),
    selectSaleNames(database, [thread.nameId]),
    selectRates(database),
    thread.marketplaceId === null ? null : selectMarketplace(database, thread.marketplaceId),
    selectSalesOf(database, thread.nameId),
    selectThreads(database, [thread.nameId]),
  ]);
  const now = deps.clock();
  const { fees, unitMinor } = sellingTerms(marketplace, null, thread.currency, rates, now);
  return {
    thread,
    listing: listingFor(listings, thread.marketplaceId),
    cost: name ? costIn(name.spent, thread.currency, rates, now) : null,
    fees,
    unitMinor,
    saleId: sales.find(({ stage }) => !hasFailed(stage))?.id ?? null,
    rivals: threads
      .flatMap((other) => (other.id === thread.id ? [] : rivalOf(other, now)))
      .sort((a, b) => b.minor - a.minor),
    now,
  };
}

function rivalOf({ id, state, figures, buyer, marketplace, currency }: ThreadRow, now: Instant): Rival[] {
  const live = liveFigure(figures, now);
  if (state !== 'open' || live === null) return [];
  const { minor, by, lapsesAt } = live;
  return [{ threadId: id, buyer, marketplace, minor, currency, isOurs: by === 'owner', lapsesAt }];
}

/** How offers are answered without the owner; `null` for not at all. */
export async function answerRule(deps: Deps): Promise<AnswerRule | null> {
  return (await selectSettings(deps.database)).answerRule;
}
