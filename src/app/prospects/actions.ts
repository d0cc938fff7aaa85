'use server';
import type { Refusal } from '@/core/refusal';
import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import {
  type AllAssumptions,
  dropAssumptions,
  saveAssumptions,
  takeAssumptions,
} from '@/usecases/prospects/assumptions';
import { dropForecast } from '@/usecases/prospects/forecasts';
import { orPlayedTooLong } from '@/usecases/tookTooLong';

export async function saveAssumptionsAction(input: unknown): Promise<AllAssumptions | Refusal> {
  return saveAssumptions(deps(), input);
}

export async function takeAssumptionsAction(input: unknown): Promise<AllAssumptions | Refusal> {
  return takeAssumptions(deps(), input);
}

export async function dropAssumptionsAction(id: number): Promise<AllAssumptions | Refusal> {
  return dropAssumptions(deps(), id);
}

export async function keepForecastAction(input: unknown): Promise<number | Refusal> {
  return orPlayedTooLong(compute(deps(), 'keepForecast', input));
}

export async function dropForecastAction(id: number): Promise<true | Refusal> {
  return dropForecast(deps(), id);
}
