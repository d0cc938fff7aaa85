'use server';
import type { Refusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import {
  addWebhook,
  type MadeWebhook,
  removeWebhook,
  renewSecret,
  setWebhookPaused,
} from '@/usecases/programs/webhooks';

/** Adds a program that is told; answers its secret, once. */
export async function addWebhookAction(input: unknown): Promise<MadeWebhook | Refusal> {
  return addWebhook(deps(), input);
}

export async function renewSecretAction(id: number): Promise<MadeWebhook | Refusal> {
  return renewSecret(deps(), id);
}

export async function setWebhookPausedAction(id: number, paused: boolean): Promise<true | Refusal> {
  return setWebhookPaused(deps(), id, paused);
}

export async function removeWebhookAction(id: number): Promise<true | Refusal> {
  return removeWebhook(deps(), id);
}
