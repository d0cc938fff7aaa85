'use server';
import type { Refusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { changeNameServers, type NameServersChanged } from '@/usecases/links/nameServers';

export async function changeNameServersAction(input: unknown): Promise<NameServersChanged | Refusal> {
  return changeNameServers(deps(), input);
}
