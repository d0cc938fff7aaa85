import { setTimeout as wait } from 'node:timers/promises';
import { Webhook } from 'standardwebhooks';
import { boundedRequest } from '@/connectors/http/boundedRequest';
import { DAY_MS, type Instant } from '@/core/time';
import { type EventRow, selectEvents } from '@/database/events';
import { whileAlone } from '@/database/locks';
import { sealPlace } from '@/database/secrets';
import { selectSettings } from '@/database/settings';
import {
  noteNotTaken,
  noteTaken,
  passOver,
  selectWebhook,
  selectWebhookSecret,
  selectWebhooks,
  type WebhookRow,
} from '@/database/webhooks';
import type { Deps } from '../deps';
import { causeOf } from '../log';
import { unseal } from '../secrets/seal';
import { eventDocument } from './events';

const ANSWER_MS = 10_000;
/** The pause after a first failure; each further one takes twice as long, up to the longest. */
const FIRST_PAUSE_MS = 5000;
const LONGEST_PAUSE_MS = 5 * 60_000;
/** Who takes nothing for so long is left alone until a person looks. */
const GIVEN_UP_MS = 3 * DAY_MS;
const AT_A_TIME = 100;
const LOOK_AGAIN_MS = 1000;

/** How long to wait after so many failures, in milliseconds. */
export const pauseAfter = (failures: number): number =>
  Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** Math.min(failures - 1, 20));

/**
 * Tells every webhook what has happened, each in order and by itself, for as long as `forMs` says. An event is sent until it is taken
 * (2xx); whoever may have got it before is told so by the same `webhook-id` and a higher attempt. Answers how many were taken.
 */
export async function tellWebhooks(deps: Deps, forMs = 0): Promise<number> {
  const end = performance.now() + forMs;
  let taken = 0;
  for (;;) {
    const all = (await selectWebhooks(deps.database)).filter((one) => isDue(one, deps.clock()));
    const told = await Promise.all(
      all.map(({ id }) => whileAlone(deps.database, sealPlace.webhook(id), () => tellOne(deps, id))),
    );
    const now = told.reduce<number>((sum, count) => sum + (count ?? 0), 0);
    taken += now;
    if (now === 0) {
      if (performance.now() + LOOK_AGAIN_MS >= end) return taken;
      await wait(LOOK_AGAIN_MS);
    }
  }
}

const isDue = ({ paused, nextAt }: WebhookRow, at: Instant) => !paused && (nextAt === null || nextAt <= at);

async function tellOne(deps: Deps, id: number): Promise<number> {
  const row = await selectWebhook(deps.database, id);
  const sealed = await selectWebhookSecret(deps.database, id);
  if (!row || !sealed || !deps.key || !isDue(row, deps.clock())) return 0;
  const { events, upTo } = await selectEvents(deps.database, row.after, row.kinds, AT_A_TIME);
  if (events.length === 0) {
    if (upTo > row.after) await passOver(deps.database, id, upTo);
    return 0;
  }
  const secret = await unseal(deps.key, sealPlace.webhook(id), sealed);
  if (secret === null) {
    await pauseFor(deps, id, 'its secret was sealed with another key: make a new one');
    return 0;
  }
  const signing = new Webhook(secret);
  const { allowedHosts } = (await selectSettings(deps.database)).records;
  let taken = 0;
  for (const event of events) {
    const attempt = taken === 0 ? row.attempts + 1 : 1;
    const problem = await send(row.url, signing, event, attempt, allowedHosts);
    const at = deps.clock();
    if (problem !== null) {
      const failures = attempt;
      const isGivenUp = row.failingSince !== null && taken === 0 && at - row.failingSince > GIVEN_UP_MS;
      await noteNotTaken(deps.database, id, {
        problem,
        at,
        nextAt: (at + pauseAfter(failures)) as Instant,
        paused: isGivenUp,
      });
      deps.log.warn({ webhook: row.label, problem, failures }, 'an event was not taken');
      return taken;
    }
    await noteTaken(deps.database, id, event.place, at);
    taken += 1;
  }
  return taken;
}

const pauseFor = ({ database, clock }: Deps, id: number, problem: string): Promise<void> =>
  noteNotTaken(database, id, { problem, at: clock(), nextAt: clock(), paused: true });

/** Sends one event, signed (Standard Webhooks). Answers why it was not taken; `null` when it was. */
async function send(
  url: string,
  signing: Webhook,
  event: EventRow,
  attempt: number,
  allowedHosts: readonly string[],
): Promise<string | null> {
  const document = eventDocument(event);
  const body = JSON.stringify(document);
  const sentAt = new Date();
  try {
    const { status } = await boundedRequest(
      url,
      {
        method: 'POST',
        headers: {
          'content-type': 'application/json',
          'user-agent': 'name-ledger',
          'webhook-id': document.id,
          'webhook-timestamp': String(Math.floor(sentAt.getTime() / 1000)),
          'webhook-signature': signing.sign(document.id, sentAt, body),
          'webhook-attempt': String(attempt),
        },
        body,
      },
      { allowedHosts, timeoutMs: ANSWER_MS, mostBytes: 100_000 },
    );
    return status >= 200 && status < 300 ? null : `it answered ${status}`;
  } catch (error) {
    return causeOf(error).message;
  }
}
