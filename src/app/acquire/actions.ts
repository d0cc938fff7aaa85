'use server';
import { isRefusal, type Refusal } from '@/core/refusal';
import { tellAddress } from '@/usecases/acquiring/addresses';
import { beginApproach, moveApproach, sayApproach } from '@/usecases/acquiring/approaches';
import { askNear } from '@/usecases/acquiring/askLinks';
import { tellRegistration } from '@/usecases/acquiring/byHand';
import { carryOnRegistrations } from '@/usecases/acquiring/carryOn';
import { type BroughtFree, bringInComingFree } from '@/usecases/acquiring/comingFree';
import type { CandidateDetail } from '@/usecases/acquiring/detail';
import { type AskingProgress, pauseIdeas, removeIdeas } from '@/usecases/acquiring/ideas';
import { registerNames } from '@/usecases/acquiring/register';
import { orderAtRelease, type ReleaseTry, releaseTries, stopRelease } from '@/usecases/acquiring/releaseOrders';
import { type Review, reviewNames } from '@/usecases/acquiring/review';
import { lookAtUse, type UseSeen } from '@/usecases/acquiring/use';
import { unwantNames, wantNames } from '@/usecases/acquiring/wanted';
import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { watchNames } from '@/usecases/records/watch';

export async function saveIdeasAction(id: number | null, input: unknown): Promise<number | Refusal> {
  return compute(deps(), 'saveIdeas', id, input);
}

export async function askAgainAction(id: number, anew: boolean): Promise<AskingProgress | Refusal> {
  return compute(deps(), 'askAgain', id, anew);
}

export async function pauseAction(id: number, paused: boolean): Promise<AskingProgress | Refusal> {
  return pauseIdeas(deps(), id, paused);
}

export async function removeIdeasAction(id: number): Promise<true | Refusal> {
  return removeIdeas(deps(), id);
}

export async function detailAction(ascii: string, pieces: readonly string[]): Promise<CandidateDetail | Refusal> {
  return compute(deps(), 'candidateDetail', ascii, pieces);
}

export async function lookAtUseAction(ascii: string): Promise<UseSeen | Refusal> {
  return lookAtUse(deps(), ascii);
}

export async function watchCandidateAction(ascii: string): Promise<number | Refusal> {
  return watchNames(deps(), { names: [ascii] });
}

export async function askNearAction(ascii: string): Promise<number | Refusal> {
  return askNear(deps(), ascii);
}

export async function wantAction(input: unknown): Promise<number | Refusal> {
  return wantNames(deps(), input);
}

export async function unwantAction(ascii: readonly string[]): Promise<true | Refusal> {
  return unwantNames(deps(), ascii);
}

export async function reviewAction(input: unknown): Promise<Review | Refusal> {
  return reviewNames(deps(), input);
}

/** Puts names on their way; the first pass over them begins at once, and is not waited for. */
export async function registerAction(input: unknown): Promise<string | Refusal> {
  const own = deps();
  const run = await registerNames(own, input);
  if (!isRefusal(run))
    void carryOnRegistrations(own).catch((error: unknown) =>
      own.log.error({ err: error }, 'registrations could not be carried on: the jobs do it'),
    );
  return run;
}

export async function tellRegistrationAction(input: unknown): Promise<string | Refusal> {
  return tellRegistration(deps(), input);
}

export async function tellAddressAction(input: unknown): Promise<true | Refusal> {
  return tellAddress(deps(), input);
}

export async function beginApproachAction(input: unknown): Promise<number | Refusal> {
  return beginApproach(deps(), input);
}

export async function sayApproachAction(input: unknown): Promise<true | Refusal> {
  return sayApproach(deps(), input);
}

export async function moveApproachAction(input: unknown): Promise<string | Refusal> {
  return moveApproach(deps(), input);
}

export async function orderAtReleaseAction(input: unknown): Promise<number | Refusal> {
  return orderAtRelease(deps(), input);
}

export async function stopReleaseAction(id: number): Promise<true | Refusal> {
  return stopRelease(deps(), id);
}

export async function releaseTriesAction(orderId: number): Promise<ReleaseTry[]> {
  return releaseTries(deps(), orderId);
}

export async function bringInComingFreeAction(text: string, source: string): Promise<BroughtFree | Refusal> {
  return bringInComingFree(deps(), text, source);
}
