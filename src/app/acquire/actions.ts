'use server';
import type { Refusal } from '@/core/refusal';
import { askNear } from '@/usecases/acquiring/askLinks';
import { type CandidateDetail, candidateDetail } from '@/usecases/acquiring/detail';
import { type AskingProgress, askAgain, pauseIdeas, removeIdeas, saveIdeas } from '@/usecases/acquiring/ideas';
import { lookAtUse, type UseSeen } from '@/usecases/acquiring/use';
import { deps } from '@/usecases/deps';
import { watchNames } from '@/usecases/records/watch';

export async function saveIdeasAction(id: number | null, input: unknown): Promise<number | Refusal> {
  return saveIdeas(deps(), id, input);
}

export async function askAgainAction(id: number, anew: boolean): Promise<AskingProgress | Refusal> {
  return askAgain(deps(), id, anew);
}

export async function pauseAction(id: number, paused: boolean): Promise<AskingProgress | Refusal> {
  return pauseIdeas(deps(), id, paused);
}

export async function removeIdeasAction(id: number): Promise<void> {
  await removeIdeas(deps(), id);
}

export async function detailAction(ascii: string, pieces: readonly string[]): Promise<CandidateDetail | Refusal> {
  return candidateDetail(deps(), ascii, pieces);
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
