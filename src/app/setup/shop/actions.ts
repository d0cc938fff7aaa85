'use server';
import type { Refusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { blockSender, saveShop, saveShopTexts, unblockSender } from '@/usecases/shop/settings';

export async function saveShopAction(input: unknown): Promise<true | Refusal> {
  return saveShop(deps(), input);
}

/** Sets what buyers read in one language. */
export async function saveShopTextsAction(input: unknown): Promise<true | Refusal> {
  return saveShopTexts(deps(), input);
}

export async function blockSenderAction(sender: string): Promise<true | Refusal> {
  return blockSender(deps(), { sender });
}

export async function unblockSenderAction(sender: string): Promise<true | Refusal> {
  return unblockSender(deps(), { sender });
}
