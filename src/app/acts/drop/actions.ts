'use server';
import { isRefusal, type Refusal } from '@/core/refusal';
import type { Done } from '@/usecases/changing';
import { deps } from '@/usecases/deps';
import { seenZone } from '@/usecases/records/records';
import { dropNames, type Hanging, hangingOn, keepAfterAll } from '@/usecases/rescue/drop';
import { officeSettings } from '@/usecases/settings';
import { switchedLater } from '../switch/switchedLater';

/** What the program knows to hang on names, and the office's reasons for dropping. */
export async function aboutDroppingAction(
  nameIds: readonly number[],
): Promise<{ hanging: Hanging[]; reasons: readonly string[] }> {
  const [hanging, { dropReasons }] = await Promise.all([hangingOn(deps(), nameIds), officeSettings(deps())]);
  return { hanging, reasons: dropReasons };
}

export async function dropAction(input: unknown): Promise<Done | Refusal> {
  return switchedLater(await dropNames(deps(), input));
}

export async function keepAfterAllAction(input: unknown): Promise<Done | Refusal> {
  return switchedLater(await keepAfterAll(deps(), input));
}

/** What hangs on a name now, as a master file. */
export async function seenZoneAction(ascii: string): Promise<string | Refusal> {
  const seen = await seenZone(deps(), ascii);
  return isRefusal(seen) ? seen : seen.text;
}
