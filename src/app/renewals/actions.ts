'use server';
import { isRefusal, type Refusal } from '@/core/refusal';
import type { Done } from '@/usecases/changing';
import { deps } from '@/usecases/deps';
import { carryOutRun } from '@/usecases/orders/carryOut';
import { compareTerms, type TermsCompared } from '@/usecases/orders/compareTerms';
import { confirmRenewal } from '@/usecases/orders/confirm';
import { changeRenewal, moveRenewal, type OpenRenewal, openRenewal, payRunBy } from '@/usecases/orders/plan';
import {
  finishRun,
  leaveItem,
  priceRun,
  type RunProgress,
  runProgress,
  sendReportsAgain,
  startRun,
  stopRun,
} from '@/usecases/orders/start';
import { later } from '../acts/later';

export async function changeRenewalAction(id: string, input: unknown): Promise<OpenRenewal | Refusal> {
  return changeRenewal(deps(), id, input);
}

/** Notes that the person has the steps, or drops the renewal. Answers a refusal, or nothing. */
export async function moveRenewalAction(id: string, to: 'requested' | 'dropped'): Promise<Refusal | null> {
  const moved = await moveRenewal(deps(), { id, to });
  return isRefusal(moved) ? moved : null;
}

export async function confirmRenewalAction(input: unknown): Promise<Done | Refusal> {
  return confirmRenewal(deps(), input);
}

export async function priceRunAction(id: string): Promise<RunProgress | Refusal> {
  return priceRun(deps(), id);
}

export async function runProgressAction(id: string): Promise<RunProgress> {
  return runProgress(deps(), id);
}

/** Starts a run and lets it go on after the answer; what is left when this process ends, the jobs carry on. */
export async function startRunAction(id: string, report: unknown = null): Promise<number | Refusal> {
  return goOn(id, await startRun(deps(), id, report));
}

/** Sends restore reports again that were refused, with other words. */
export async function sendReportsAgainAction(id: string, report: unknown): Promise<number | Refusal> {
  return goOn(id, await sendReportsAgain(deps(), id, report));
}

function goOn(id: string, started: number | Refusal): number | Refusal {
  if (!isRefusal(started) && started > 0) later(`the run ${id}`, (own) => carryOutRun(own, id));
  return started;
}

export async function leaveItemAction(id: string, nameId: number): Promise<RunProgress | Refusal> {
  const left = await leaveItem(deps(), id, nameId);
  if (isRefusal(left)) return left;
  return runProgress(deps(), id);
}

/** Chooses by which of its payment methods an account of a run pays. Answers the run. */
export async function payRunByAction(input: unknown): Promise<OpenRenewal | Refusal> {
  const chosen = await payRunBy(deps(), input);
  return isRefusal(chosen) ? chosen : openRenewal(deps(), chosen.id);
}

/** Stops what has not been sent; what has been sent is left to a person. */
export async function stopRunAction(id: string): Promise<RunProgress | Refusal> {
  const stopped = await stopRun(deps(), id);
  return isRefusal(stopped) ? stopped : runProgress(deps(), id);
}

export async function finishRunAction(id: string): Promise<true | Refusal> {
  return finishRun(deps(), id);
}

/** What so many years cost now for the names of a renewal, beside one year. */
export async function compareTermsAction(id: string, years: number): Promise<TermsCompared | Refusal> {
  return compareTerms(deps(), id, years);
}
