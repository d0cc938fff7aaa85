'use server';
import type { Refusal } from '@/core/refusal';
import type { Done } from '@/usecases/changing';
import { deps } from '@/usecases/deps';
import { settleMail } from '@/usecases/mails/mails';
import { type TakenIn, takeInPasted } from '@/usecases/mails/takeIn';
import { type CheckProgress, checkProgress } from '@/usecases/records/check';
import { dismissDifferences, takeOver } from '@/usecases/records/compare';
import { type ListedName, lookUpList } from '@/usecases/records/list';
import { pasteRecord } from '@/usecases/records/records';
import { unwatchName, watchNames } from '@/usecases/records/watch';

export async function checkProgressAction(): Promise<CheckProgress> {
  return checkProgress(deps());
}

export async function takeOverAction(input: unknown): Promise<Done | Refusal> {
  return takeOver(deps(), input);
}

export async function dismissAction(input: unknown): Promise<number | Refusal> {
  return dismissDifferences(deps(), input);
}

export async function pasteRecordAction(input: unknown): Promise<string | Refusal> {
  return pasteRecord(deps(), input);
}

export async function watchAction(input: unknown): Promise<number | Refusal> {
  return watchNames(deps(), input);
}

export async function unwatchAction(ascii: string): Promise<true | Refusal> {
  return unwatchName(deps(), ascii);
}

/** Looks up a list of names that is pasted; the free ones come with what they cost. */
export async function lookUpListAction(text: string): Promise<ListedName[] | Refusal> {
  return lookUpList(deps(), text);
}

/** Takes in a mail that was pasted. */
export async function pasteMailAction(text: string): Promise<TakenIn | Refusal> {
  return takeInPasted(deps(), String(text));
}

/** Takes over what a mail says of names, or leaves it. */
export async function settleMailAction(input: unknown): Promise<number | Refusal> {
  return settleMail(deps(), input);
}
