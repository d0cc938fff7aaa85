import { randomBytes } from 'node:crypto';
import { ArrayMaxSize, IsArray, IsIn, IsOptional, IsString, MaxLength, MinLength } from 'class-validator';
import { isUntouched, mayAsk, notPublic } from '@/connectors/http/addresses';
import { EVENT_KINDS } from '@/core/journal';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { selectPlaces } from '@/database/events';
import { transaction } from '@/database/pool';
import { sealPlace } from '@/database/secrets';
import { selectSettings } from '@/database/settings';
import {
  deleteWebhook,
  insertWebhook,
  pauseWebhook,
  selectWebhook,
  selectWebhooks,
  setWebhookSecret,
  type WebhookRow,
} from '@/database/webhooks';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { seal } from '../secrets/seal';
import { OneLine } from '../texts';
import { readRequest } from '../validate';

export type { WebhookRow } from '@/database/webhooks';

/** A program that wants to be told of what happens. */
export class WebhookForm {
  @IsString()
  @OneLine()
  @MinLength(1, { message: 'Say what it is for.' })
  @MaxLength(60)
  label!: string;

  @IsString()
  @MaxLength(400, { message: 'An address has 400 letters at most.' })
  url!: string;

  /** Left out or empty: everything. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(EVENT_KINDS.length)
  @IsIn(EVENT_KINDS, { each: true, message: `Kinds are ${EVENT_KINDS.join(', ')}.` })
  kinds?: string[];
}

/** A webhook that was just made, with its secret: it is shown this once. */
export interface MadeWebhook {
  readonly webhook: WebhookRow;
  readonly secret: string;
}

const MOST = 20;

/** What signs: 24 random bytes, as the specification of Standard Webhooks writes them. */
const newSecret = () => `whsec_${randomBytes(24).toString('base64')}`;

/** Every webhook. */
export const webhooks = ({ database }: Deps): Promise<WebhookRow[]> => selectWebhooks(database);

/** One webhook; `null` where there is none. */
export const webhook = ({ database }: Deps, id: number): Promise<WebhookRow | null> => selectWebhook(database, id);

/** Adds a program that is told of what happens from now on. */
export const addWebhook = command('addWebhook', async (deps: Deps, input: unknown): Promise<MadeWebhook | Refusal> => {
  const form = await readRequest(WebhookForm, input);
  if (isRefusal(form)) return form;
  const { key } = deps;
  if (key === null) return refuse('no-key', 'Secrets cannot be sealed here: start the program with bin/start.');
  const { records } = await selectSettings(deps.database);
  const url = URL.canParse(form.url) ? new URL(form.url) : null;
  if (url === null || !['http:', 'https:'].includes(url.protocol) || url.username || url.password)
    return refuse('url-invalid', 'Write an address like https://office.example/ledger.', 'url');
  if (!isUntouched(url)) return refuse('url-not-secure', 'Only https keeps others from reading it on the way.', 'url');
  if (!mayAsk(url.hostname, records.allowedHosts)) return refuse('host-not-public', notPublic(url.hostname), 'url');
  if ((await selectWebhooks(deps.database)).length >= MOST)
    return refuse('too-many', `There are ${MOST} already. Remove one first.`);
  const secret = newSecret();
  const { last: after } = await selectPlaces(deps.database);
  const id = await transaction(deps.database, async (tx) => {
    const draft = {
      label: form.label.trim(),
      url: url.toString(),
      kinds: form.kinds ?? [],
      after,
    };
    const made = await insertWebhook(tx, draft, deps.clock());
    await setWebhookSecret(tx, made, await seal(key, sealPlace.webhook(made), secret));
    return made;
  });
  return { webhook: (await selectWebhook(deps.database, id)) as WebhookRow, secret };
});

const UNKNOWN = refuse('not-found', 'There is no such webhook.');

/** Makes a new secret in place of the old one, which signs nothing any more. Answers it, once. */
export const renewSecret = command('renewSecret', async (deps: Deps, id: number): Promise<MadeWebhook | Refusal> => {
  const row = await selectWebhook(deps.database, id);
  if (!row) return UNKNOWN;
  if (deps.key === null) return refuse('no-key', 'Secrets cannot be sealed here: start the program with bin/start.');
  const secret = newSecret();
  await setWebhookSecret(deps.database, id, await seal(deps.key, sealPlace.webhook(id), secret));
  return { webhook: row, secret };
});

export const removeWebhook = command('removeWebhook', async (deps: Deps, id: number): Promise<true | Refusal> => {
  return (await deleteWebhook(deps.database, id)) || UNKNOWN;
});

/** Pauses a webhook, or lets it go on from where it stood. */
export const setWebhookPaused = command(
  'setWebhookPaused',
  async (deps: Deps, id: number, paused: boolean): Promise<true | Refusal> => {
    return (await pauseWebhook(deps.database, id, paused)) || UNKNOWN;
  },
);
