'use server';
import { isRefusal, type Refusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { type CheckProgress, checkProgress, drainChecks, queueChecks } from '@/usecases/records/check';
import { later } from '../later';

/** Puts names in line to be checked, and begins at once; the jobs carry on what is left. */
export async function checkNamesAction(ascii: readonly string[]): Promise<CheckProgress | Refusal> {
  const queued = await queueChecks(deps(), ascii);
  if (isRefusal(queued)) return queued;
  later('checking records', drainChecks);
  return checkProgress(deps());
}
