'use server';
import { isRefusal, type Refusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { takeArrival } from '@/usecases/moving/arrival';
import {
  agreeToPrice,
  codeOfTransfer,
  noteCounterOffer,
  stayAfterAll,
  stopTransfer,
  tellTransfer,
} from '@/usecases/moving/byHand';
import { carryOnTransfers } from '@/usecases/moving/carryOn';
import { type StartedTransfers, startTransfers } from '@/usecases/moving/start';
import { bringZone, type ZonesOfTransfer, zonesOfTransfer } from '@/usecases/moving/zones';
import { later } from '../acts/later';

/** What was done goes on by itself after the answer; what is left when this process ends, the jobs carry on. */
function goOn<T>(answer: T | Refusal): T | Refusal {
  if (!isRefusal(answer)) later('transfers', carryOnTransfers);
  return answer;
}

export async function startTransfersAction(input: unknown, key: string): Promise<StartedTransfers | Refusal> {
  return goOn(await startTransfers(deps(), input, key));
}

/** Takes down what was done or seen, of one transfer or of several that are alike. */
export async function tellTransfersAction(inputs: readonly unknown[]): Promise<true | Refusal> {
  for (const input of inputs) {
    const told = await tellTransfer(deps(), input);
    if (isRefusal(told)) return told;
  }
  return goOn(true);
}

export async function stopTransferAction(id: number): Promise<true | Refusal> {
  return goOn(await stopTransfer(deps(), id));
}

export async function agreeToPriceAction(id: number, minor: number): Promise<true | Refusal> {
  return goOn(await agreeToPrice(deps(), id, minor));
}

export async function codeOfTransferAction(id: number): Promise<string | Refusal> {
  return codeOfTransfer(deps(), id);
}

/** Takes every transfer as far as it goes now. */
export async function carryOnAction(): Promise<number> {
  return (await carryOnTransfers(deps())) ?? 0;
}

export async function zonesOfTransferAction(id: number): Promise<ZonesOfTransfer | Refusal> {
  return zonesOfTransfer(deps(), id);
}

/** Takes in the zone file of the old account. Answers how many records it holds. */
export async function bringZoneAction(id: number, text: string): Promise<number | Refusal> {
  return bringZone(deps(), id, text);
}

export async function noteCounterOfferAction(
  id: number,
  offer: { minor: number } | 'declined',
): Promise<true | Refusal> {
  return goOn(await noteCounterOffer(deps(), id, offer));
}

export async function stayAfterAllAction(id: number): Promise<true | Refusal> {
  return goOn(await stayAfterAll(deps(), id));
}

export async function takeArrivalAction(input: unknown): Promise<string | Refusal> {
  return goOn(await takeArrival(deps(), input));
}
