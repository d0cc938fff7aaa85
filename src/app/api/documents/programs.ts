import type { MadeWebhook, WebhookRow } from '@/usecases/programs/webhooks';
import { documentOf, from, instant, list, named, orNull, text, whole, yesNo } from '../kinds';

export const webhookDocument = named(
  'Webhook',
  documentOf<WebhookRow>()({
    id: whole,
    label: text,
    url: text,
    kinds: list(text),
    madeAt: instant,
    toldAt: orNull(instant),
    attempts: whole,
    nextAt: orNull(instant),
    problem: orNull(text),
    paused: yesNo,
  }),
);

/** With its secret, which is shown this once. */
export const madeWebhook = named(
  'MadeWebhook',
  documentOf<MadeWebhook>()({ webhook: webhookDocument, secret: from(({ secret }: MadeWebhook) => secret, text) }),
);
