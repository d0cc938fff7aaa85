'use server';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { type Deps, deps } from '@/usecases/deps';
import { changeReserve, enterBid, offerToHighest } from '@/usecases/selling/auctions';
import { type BroughtSales, bringInSales } from '@/usecases/selling/comparables';
import { followSelling } from '@/usecases/selling/follow';
import { saveListings } from '@/usecases/selling/listings';
import { answerOffer, buyerAnswers, enterOffer } from '@/usecases/selling/offers';
import { type PastedNames, pastedNames } from '@/usecases/selling/pricing';
import { lookForProof, placeProof, proveListing } from '@/usecases/selling/prove';
import { handOver, stepSale, transferCode } from '@/usecases/selling/sales';
import { type Listed, sendListings } from '@/usecases/selling/sendListings';
import { markSeenLive, withdrawListingsById } from '@/usecases/selling/withdraw';
import { blockSender, returnDeposit, takeDeposit } from '@/usecases/shop/settings';
import { lookForWindows } from '@/usecases/shop/shows';
import { later } from '../acts/later';

/** What was decided is told to marketplaces at once, without keeping the person waiting. */
async function followed<T>(answer: Promise<T>): Promise<T> {
  const done = await answer;
  if (!isRefusal(done)) later('following what is sold', followSelling);
  return done;
}

/** Follows selling before the answer, so that the next screen shows how it stands; what goes wrong is carried on by the jobs. */
async function followNow(own: Deps): Promise<void> {
  await followSelling(own).catch((error: unknown) => own.log.error({ err: error }, 'selling could not be followed'));
}

/** The ids of one's own names in a pasted list, and what is not in the ledger. */
export async function pastedNamesAction(text: string): Promise<PastedNames | Refusal> {
  return pastedNames(deps(), text);
}

/** Lists names; those that go to a marketplace with a link are sent before this answers, so that the next screen shows how they stand. */
export async function saveListingsAction(input: unknown): Promise<Listed | Refusal> {
  const own = deps();
  const listed = await saveListings(own, input);
  if (!isRefusal(listed) && listed.sent > 0) await followNow(own);
  return listed;
}

export async function sendListingsAction(input: unknown): Promise<Listed | Refusal> {
  return followed(sendListings(deps(), input));
}

export async function withdrawAction(input: unknown): Promise<number | Refusal> {
  return followed(withdrawListingsById(deps(), input));
}

export async function seenLiveAction(input: unknown): Promise<number | Refusal> {
  return markSeenLive(deps(), input);
}

export async function proveAction(input: unknown): Promise<true | Refusal> {
  return proveListing(deps(), input);
}

export async function enterOfferAction(input: unknown): Promise<number | Refusal> {
  return enterOffer(deps(), input);
}

export async function answerOfferAction(input: unknown): Promise<true | Refusal> {
  const answer = await followed(answerOffer(deps(), input));
  return isRefusal(answer) ? answer : true;
}

export async function buyerAnswersAction(threadId: number, answer: 'accept' | 'decline'): Promise<true | Refusal> {
  const answered = await buyerAnswers(deps(), threadId, answer);
  return isRefusal(answered) ? answered : true;
}

export async function enterBidAction(input: unknown): Promise<true | Refusal> {
  const bid = await enterBid(deps(), input);
  return isRefusal(bid) ? bid : true;
}

export async function changeReserveAction(input: unknown): Promise<true | Refusal> {
  const changed = await changeReserve(deps(), input);
  return isRefusal(changed) ? changed : true;
}

export async function offerToHighestAction(input: unknown): Promise<number | Refusal> {
  return followed(offerToHighest(deps(), input));
}

export async function stepSaleAction(input: unknown): Promise<true | Refusal> {
  const sale = await followed(stepSale(deps(), input));
  return isRefusal(sale) ? sale : true;
}

/** Hands a name over and looks at once whether it has arrived, so that the screen shows how it stands. */
export async function handOverAction(input: unknown): Promise<true | Refusal> {
  const own = deps();
  const sale = await handOver(own, input);
  if (isRefusal(sale)) return sale;
  await followNow(own);
  return true;
}

/** Shows the code of a transfer to the person who asks for it. */
export async function transferCodeAction(saleId: number): Promise<string | Refusal> {
  return Number.isInteger(saleId) ? transferCode(deps(), saleId) : refuse('sale-unknown', 'There is no such sale.');
}

/** Asks the marketplaces now what happened there. */
export async function lookAgainAction(): Promise<true | Refusal> {
  try {
    await followSelling(deps());
    return true;
  } catch (error) {
    deps().log.error({ err: error }, 'selling could not be followed');
    return refuse('marketplaces-away', 'The marketplaces could not be asked. Try again in a minute.');
  }
}

export async function bringInSalesAction(text: string, currency: string): Promise<BroughtSales | Refusal> {
  return bringInSales(deps(), text, currency);
}

/** Takes the text that a marketplace wants to see, and sets it by link where that goes. */
export async function placeProofAction(input: unknown): Promise<{ readonly isSet: boolean } | Refusal> {
  return placeProof(deps(), input);
}

/** Looks by DNS whether it stands there. */
export async function lookForProofAction(listingId: number): Promise<true | Refusal> {
  return lookForProof(deps(), listingId);
}

/** Looks now whether names lead to their windows; answers how many do. */
export async function lookForWindowsAction(nameIds: readonly number[]): Promise<number | Refusal> {
  return lookForWindows(deps(), { nameIds });
}

/** Takes down a deposit that has come. */
export async function takeDepositAction(letterId: number, amount: string): Promise<true | Refusal> {
  return takeDeposit(deps(), { letterId, amount });
}

export async function returnDepositAction(letterId: number): Promise<true | Refusal> {
  return returnDeposit(deps(), { letterId });
}

/** Hears nothing more of a sender. */
export async function blockSenderAction(sender: string): Promise<true | Refusal> {
  return blockSender(deps(), { sender });
}
