'use server';
import { after } from 'next/server';
import { isRefusal, type Refusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import type { Done } from '@/usecases/names/edit';
import { type CheckProgress, checkProgress, drainChecks, queueChecks } from '@/usecases/records/check';
import { dismissDifferences, takeOver } from '@/usecases/records/compare';
import { type ListedName, lookUpList } from '@/usecases/records/list';
import { pasteRecord, seenZone } from '@/usecases/records/records';
import { unwatchName, watchNames } from '@/usecases/records/watch';

/** Puts names in line to be checked, and begins at once; the jobs carry on what is left. */
export async function checkNamesAction(ascii: readonly string[]): Promise<CheckProgress> {
  const own = deps();
  await queueChecks(own, ascii);
  after(async () => {
    await drainChecks(own).catch((error: unknown) => own.log.error({ err: error }, 'checking records was interrupted'));
  });
  return checkProgress(own);
}

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

export async function unwatchAction(ascii: string): Promise<void> {
  await unwatchName(deps(), ascii);
}

/** What hangs on a name now, as a master file. */
export async function seenZoneAction(ascii: string): Promise<string | Refusal> {
  const seen = await seenZone(deps(), ascii);
  return isRefusal(seen) ? seen : seen.text;
}

/** Looks up a list of names that is pasted; the free ones come with what they cost. */
export async function lookUpListAction(text: string): Promise<ListedName[] | Refusal> {
  return lookUpList(deps(), text);
}
