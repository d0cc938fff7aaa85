import { createHash } from 'node:crypto';
import { type Refusal, refuse } from '@/core/refusal';
import { addDays } from '@/core/time';
import { beginKeyed, forgetKeys, freeKey, keepAnswer } from '@/database/keyedRequests';
import type { Deps } from '../deps';

/** What a request was answered, as it went out. */
export interface KeyedAnswer {
  readonly status: number;
  readonly body: string;
  /** It is shown once: the same request again is told that it was carried out, and not answered. */
  readonly isSecret?: boolean;
}

const KEPT_DAYS = 7;
const KEY = /^[\x20-\x7e]{1,200}$/;

/**
 * Carries out a request once for its key (draft-ietf-httpapi-idempotency-key-header): the same again is answered the same, another with
 * the same key is refused, and so is the same while it is carried out or where nobody knows its end. What was refused may be mended and
 * sent again with its key.
 */
export async function onceForKey(
  deps: Deps,
  key: string,
  request: string,
  work: () => Promise<KeyedAnswer>,
): Promise<KeyedAnswer | Refusal> {
  if (!KEY.test(key))
    return refuse('idempotency-key-invalid', 'An Idempotency-Key has 1 to 200 letters, digits and signs.');
  const sha256 = createHash('sha256').update(request).digest();
  const before = await beginKeyed(deps.database, key, sha256, deps.clock());
  if (before === null) {
    const answer = await work();
    // What failed here may be done or not: the key stays, so that nothing is done twice.
    if (answer.status < 400) {
      if (!answer.isSecret) await keepAnswer(deps.database, key, answer.status, answer.body);
    } else if (answer.status < 500) await freeKey(deps.database, key);
    return answer;
  }
  if (!before.sha256.equals(sha256))
    return refuse(
      'idempotency-key-reused',
      'This Idempotency-Key came with another request before. Send a new key with each new request.',
    );
  if (before.status === null)
    return refuse(
      'request-under-way',
      'This request came before, and its end is not known: it is being carried out, or its process ended meanwhile. Look whether it was done before you send it with a new key.',
    );
  return { status: before.status, body: before.answer ?? '' };
}

/** Forgets the keys of more than a week ago. Answers how many. */
export const forgetOldKeys = (deps: Deps): Promise<number> =>
  forgetKeys(deps.database, addDays(deps.clock(), -KEPT_DAYS));
