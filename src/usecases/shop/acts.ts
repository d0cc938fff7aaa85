import { isRefusal } from '@/core/refusal';
import { HANDOVERS } from '@/core/selling';
import { type BuyerAct, buyerActs, depositFor, money, sendersOf, type TextKey } from '@/core/shop';
import { isOneLine, refuseText } from '@/core/text/plainText';
import { lockAuction } from '@/database/auctions';
import { isBlocked, type LetterRow, lockLetter, selectBiddersOf, updateLetter } from '@/database/letters';
import { lockThread } from '@/database/offers';
import type { Transaction } from '@/database/pool';
import { selectRates } from '@/database/rates';
import { lockSale } from '@/database/sales';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { takeBid } from '../selling/auctions';
import { buyerStepsSale } from '../selling/buyerSteps';
import { answerForBuyer, withdrawThread } from '../selling/offers';
import { receiveOffer } from '../selling/receiveOffer';
import { bidderOf, type Matter } from './buyer';
import { isWithin } from './limits';
import { cutTo, figureIn, LONGEST, type NotTaken, type Typed } from './send';
import { shopNow } from './taking';
import { windowOf } from './window';

/** What a buyer sends from his own page. */
export interface Answered extends Pick<Typed, 'amount' | 'message'> {
  readonly act: string;
  readonly handover: string;
  readonly account: string;
}

const MOST_LETTERS = 120;
const not = (text: TextKey): NotTaken => ({ text });
/** What says something new to the office; the rest answers what it has said itself, or sees a sale through. */
const NEW: ReadonlySet<BuyerAct> = new Set(['confirm', 'counter', 'raise']);

/**
 * Carries out what a buyer does at his own page: the rules, locks and sales are those of every other offer and bid. `null` where it was done;
 * what cannot be done any more says why. Done twice it is done once: each is asked again under the locks.
 */
export async function answerAsBuyer(deps: Deps, matter: Matter, answered: Answered): Promise<NotTaken | null> {
  const { letter, view } = matter;
  const act = buyerActs(view).find((one) => one === answered.act);
  // Somebody was faster, or sent it twice: the page shows how it stands.
  if (act === undefined) return null;
  if (NEW.has(act)) {
    // Who is not heard is not told so.
    if (await isBlocked(deps.database, sendersOf(letter.mail))) return null;
    if (!(await isWithin(deps, 'answers', String(letter.id)))) return not('tooOften');
  }
  switch (act) {
    case 'confirm':
      return letter.kind === 'bid' ? confirmBid(deps, letter) : confirmOffer(deps, letter);
    case 'counter':
    case 'raise':
      return figureAgain(deps, matter, act, answered);
    case 'where':
    case 'arrived':
      return stepSale(deps, matter, act, answered);
    default:
      return answerThread(deps, letter, act);
  }
}

async function answerThread(deps: Deps, letter: LetterRow, act: BuyerAct): Promise<NotTaken | null> {
  return changing(deps, async (tx) => {
    const thread = letter.threadId === null ? null : await lockThread(tx, letter.threadId);
    if (!thread) return not('linkOver');
    await updateLetter(tx, letter.id, { over: false });
    if (act === 'withdraw') {
      if (thread.state === 'accepted') return not('noLonger');
      await withdrawThread(tx, thread);
      return null;
    }
    const done = await answerForBuyer(tx, deps, thread, act === 'accept' ? 'accept' : 'decline', 'buyer');
    return isRefusal(done) ? not(done.code === 'name-promised' ? 'promisedElsewhere' : 'noLonger') : null;
  });
}

/** What was sent becomes a thread of the office; what has become of the name meanwhile counts. */
async function confirmOffer(deps: Deps, letter: LetterRow): Promise<NotTaken | null> {
  const window = await windowOf(deps, letter.ascii);
  if (window === null) return not('noLonger');
  if (letter.kind === 'purchase') {
    if (window.priceMinor === null || window.currency !== letter.currency) return not('noLonger');
    if (window.priceMinor > letter.minor)
      return { text: 'belowLeast', said: { amount: money(window.priceMinor, window.currency, letter.language) } };
  }
  return changing(deps, async (tx) => {
    const now = await lockLetter(tx, letter.id);
    if (now === null || now.confirmedAt !== null) return null;
    const { nameId, buyer, mail, minor, currency, message } = now;
    const threadId = await receiveOffer(tx, deps, {
      nameId,
      marketplaceId: null,
      threadId: null,
      threadRef: null,
      figureRef: null,
      buyer,
      contact: mail,
      minor,
      currency,
      lapsesAt: null,
      note: message,
      at: deps.clock(),
    });
    await updateLetter(tx, now.id, { confirmedAt: deps.clock(), threadId });
    return null;
  });
}

async function confirmBid(deps: Deps, letter: LetterRow): Promise<NotTaken | null> {
  return changing(deps, async (tx) => {
    const now = await lockLetter(tx, letter.id);
    if (now === null || now.confirmedAt !== null) return null;
    // Who bids a second time by another letter is the same bidder.
    const known = (await selectBiddersOf(tx, now.auctionId as number)).findLast(
      ({ mail }) => mail.toLowerCase() === now.mail.toLowerCase(),
    );
    const own = known
      ? { buyer: known.buyer, mail: known.mail, placedMinor: known.placedMinor, heldMinor: known.heldMinor }
      : {};
    await updateLetter(tx, now.id, { ...own, confirmedAt: deps.clock() });
    // What is held of his stands with the letter that he sent last.
    if (known) await updateLetter(tx, known.id, { heldMinor: 0, over: true });
    await placeLetter(tx, deps, { ...now, ...own });
    return null;
  });
}

/** Places the bid of a confirmed letter, once the deposit that it wants is held. What its auction does not take is told. */
export async function placeLetter(tx: Transaction, deps: Deps, letter: LetterRow): Promise<void> {
  if (letter.depositMinor > letter.heldMinor) return;
  const row = letter.auctionId === null ? null : await lockAuction(tx, letter.auctionId);
  if (row === null || row.outcome !== null || row.atMarketplace) {
    await updateLetter(tx, letter.id, { refused: 'auction-closed' });
    return;
  }
  const taken = await takeBid(tx, deps, row, bidderOf(letter), letter.minor);
  await updateLetter(
    tx,
    letter.id,
    isRefusal(taken) ? { refused: taken.code } : { placedMinor: letter.minor, refused: null },
  );
}

/** Another offer in a thread, or a higher bid: held against the window as it is now. */
async function figureAgain(
  deps: Deps,
  { letter }: Matter,
  act: 'counter' | 'raise',
  answered: Answered,
): Promise<NotTaken | null> {
  const [window, rates, { deposit }] = await Promise.all([
    windowOf(deps, letter.ascii),
    selectRates(deps.database),
    shopNow(deps),
  ]);
  if (window === null) return not('noLonger');
  const typed = { amount: answered.amount, currency: letter.currency };
  const figure = figureIn(act === 'raise' ? 'bid' : 'offer', window, typed, letter.language, rates, deps.clock());
  if ('text' in figure) return figure;
  const note = cutTo(answered.message.trim(), LONGEST.message);
  if (refuseText(note)) return not('tooQuick');
  return changing(deps, async (tx) => {
    const now = await lockLetter(tx, letter.id);
    if (now === null) return not('linkOver');
    await updateLetter(tx, now.id, { over: false });
    if (act === 'raise') {
      const depositMinor = depositFor(deposit, figure.minor, letter.currency, rates, deps.clock());
      const next = { minor: figure.minor, depositMinor, refused: null };
      await updateLetter(tx, now.id, next);
      await placeLetter(tx, deps, { ...now, ...next });
      return null;
    }
    const thread = now.threadId === null ? null : await lockThread(tx, now.threadId);
    if (!thread || thread.state === 'accepted' || thread.state === 'waiting' || thread.state === 'withdrawn')
      return not('noLonger');
    await receiveOffer(tx, deps, {
      nameId: now.nameId,
      marketplaceId: null,
      threadId: thread.id,
      threadRef: null,
      figureRef: null,
      buyer: now.buyer,
      contact: now.mail,
      minor: figure.minor,
      currency: letter.currency,
      lapsesAt: null,
      note,
      at: deps.clock(),
    });
    return null;
  });
}

/** Where the name is to go, or that it has come. */
async function stepSale(
  deps: Deps,
  { saleId }: Matter,
  act: 'where' | 'arrived',
  { handover, account }: Answered,
): Promise<NotTaken | null> {
  const where = account.trim();
  const how = HANDOVERS.find((one) => one === handover);
  if (
    act === 'where' &&
    (how === undefined || where === '' || where.length > MOST_LETTERS || !isOneLine(where) || refuseText(where))
  )
    return not('where');
  return changing(deps, async (tx) => {
    const sale = saleId === null ? null : await lockSale(tx, saleId);
    if (!sale) return not('linkOver');
    const step =
      act === 'arrived'
        ? ({ to: 'arrived' } as const)
        : ({ to: 'buyer known', handover: how ?? 'push', account: where } as const);
    const done = await buyerStepsSale(tx, deps, sale, step);
    return isRefusal(done) ? not('noLonger') : null;
  });
}
