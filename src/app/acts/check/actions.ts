'use server';
import { deps } from '@/usecases/deps';
import { type CheckProgress, checkProgress, drainChecks, queueChecks } from '@/usecases/records/check';
import { later } from '../later';

/** Puts names in line to be checked, and begins at once; the jobs carry on what is left. */
export async function checkNamesAction(ascii: readonly string[]): Promise<CheckProgress> {
  await queueChecks(deps(), ascii);
  later('checking records', drainChecks);
  return checkProgress(deps());
}
