'use server';
import { deps } from '@/usecases/deps';
import { seenNames } from '@/usecases/reminders/remind';

/** Takes note that what was told of these names has been seen. */
export async function seenNamesAction(nameIds: readonly number[]): Promise<void> {
  await seenNames(deps(), nameIds);
}
