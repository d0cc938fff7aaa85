'use server';
import { after } from 'next/server';
import { isRefusal, type Refusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { carryOutSwitches } from '@/usecases/links/switches';
import type { Done } from '@/usecases/names/edit';
import { decideRescue, saveSaleOdds } from '@/usecases/rescue/decide';
import { giveBack } from '@/usecases/rescue/giveBack';
import { type Hanging, hangingOn, keepAfterAll, letGo } from '@/usecases/rescue/letGo';
import { runOfName } from '@/usecases/runs/start';
import { officeSettings } from '@/usecases/settings';

export async function decideRescueAction(input: unknown): Promise<Done | Refusal> {
  return decideRescue(deps(), input);
}

export async function saveSaleOddsAction(input: unknown): Promise<true | Refusal> {
  return saveSaleOdds(deps(), input);
}

/** What the program knows to hang on names, and the office's reasons for letting go. */
export async function aboutLettingGoAction(
  nameIds: readonly number[],
): Promise<{ hanging: Hanging[]; reasons: readonly string[] }> {
  const [hanging, { letGoReasons }] = await Promise.all([hangingOn(deps(), nameIds), officeSettings(deps())]);
  return { hanging, reasons: letGoReasons };
}

export async function letGoAction(input: unknown): Promise<Done | Refusal> {
  return switched(await letGo(deps(), input));
}

export async function keepAfterAllAction(input: unknown): Promise<Done | Refusal> {
  return switched(await keepAfterAll(deps(), input));
}

export async function giveBackAction(input: unknown): Promise<Done | Refusal> {
  return giveBack(deps(), input);
}

/** Where an account has a link, the registrar is told right after the answer. */
function switched(done: Done | Refusal): Done | Refusal {
  const own = deps();
  if (!isRefusal(done)) {
    after(async () => {
      await carryOutSwitches(own).catch((error: unknown) =>
        own.log.error({ err: error }, 'switching at a registrar was interrupted'),
      );
    });
  }
  return done;
}

/** The run that is changing a name now, or `null`. */
export async function runOfNameAction(nameId: number): Promise<string | null> {
  return runOfName(deps(), nameId);
}
