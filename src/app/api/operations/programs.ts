import {
  addWebhook,
  removeWebhook,
  renewSecret,
  setWebhookPaused,
  WebhookForm,
  type WebhookRow,
  webhook,
  webhooks,
} from '@/usecases/programs/webhooks';
import { idIn } from '../asked';
import { carriedOut, found } from '../documents/answers';
import { madeWebhook, webhookDocument } from '../documents/programs';
import { documentOf, from, list } from '../kinds';
import { type AnyOperation, operation } from '../operation';

export const PROGRAMS: readonly AnyOperation[] = [
  operation({
    method: 'GET',
    path: '/webhooks',
    summary: 'Programs that are told of what happens',
    answer: documentOf<WebhookRow[]>()({ webhooks: from((rows: WebhookRow[]) => rows, list(webhookDocument)) }),
    run: ({ deps }) => webhooks(deps),
  }),
  operation({
    method: 'POST',
    path: '/webhooks',
    isSecret: true,
    summary: 'Have a program told of what happens from now on; answers the secret that signs, this once',
    body: WebhookForm,
    status: 201,
    answer: madeWebhook,
    run: ({ deps, body }) => addWebhook(deps, body),
  }),
  operation({
    method: 'GET',
    path: '/webhooks/{id}',
    summary: 'One webhook: how far it is, and what is wrong with it',
    answer: webhookDocument,
    run: async (asked) => found(await webhook(asked.deps, idIn(asked)), 'webhook'),
  }),
  operation({
    method: 'DELETE',
    path: '/webhooks/{id}',
    summary: 'Tell a program no longer',
    answer: carriedOut,
    run: (asked) => removeWebhook(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'POST',
    path: '/webhooks/{id}/secret',
    isSecret: true,
    summary: 'A new secret in place of the old one; answers it, this once',
    answer: madeWebhook,
    run: (asked) => renewSecret(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'POST',
    path: '/webhooks/{id}/pause',
    summary: 'Pause telling: what happens meanwhile is told later',
    answer: carriedOut,
    run: (asked) => setWebhookPaused(asked.deps, idIn(asked), true),
  }),
  operation({
    method: 'POST',
    path: '/webhooks/{id}/go-on',
    summary: 'Go on telling from where it stood, at once',
    answer: carriedOut,
    run: (asked) => setWebhookPaused(asked.deps, idIn(asked), false),
  }),
];
