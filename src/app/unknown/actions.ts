'use server';
import type { Refusal } from '@/core/refusal';
import type { Done } from '@/usecases/changing';
import { deps } from '@/usecases/deps';
import { confirmSwitch } from '@/usecases/names/edit';
import { sayEnds, sayMeans, sayPrices } from '@/usecases/names/mendUnknown';

export async function sayEndsAction(input: unknown): Promise<Done | Refusal> {
  return sayEnds(deps(), input);
}

export async function sayPricesAction(input: unknown): Promise<number | Refusal> {
  return sayPrices(deps(), input);
}

export async function sayMeansAction(input: unknown): Promise<number | Refusal> {
  return sayMeans(deps(), input);
}

export async function sayAutoRenewAction(input: unknown): Promise<Done | Refusal> {
  return confirmSwitch(deps(), input);
}
