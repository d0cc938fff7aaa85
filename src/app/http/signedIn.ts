import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { type AskedFrom, askedFrom } from '@/usecases/log';
import { sessionCookie } from '@/usecases/people/cookie';
import type { SignedIn } from '@/usecases/people/sessions';

/** From where a step of signing in is asked. */
export function fromHere(): AskedFrom {
  const from = askedFrom();
  if (!from) throw new Error('nobody has asked');
  return from;
}

/** The answer to whoever has signed in: the token goes into his cookie alone. */
export function answerSignedIn<T extends SignedIn>(done: T | Refusal): Response | Refusal {
  if (isRefusal(done)) return done;
  const { token, ...rest } = done;
  return Response.json(rest, { headers: { 'set-cookie': cookieOf(token), 'cache-control': 'no-store' } });
}

/** The answer to whoever signs out. */
export function answerSignedOut(): Response {
  return Response.json(
    {},
    {
      // What the browser has kept of the ledger goes with it (ASVS 5 V14.3.1).
      headers: { 'set-cookie': cookieOf(''), 'clear-site-data': '"cache", "storage"', 'cache-control': 'no-store' },
    },
  );
}

function cookieOf(token: string): string {
  const { name, options } = sessionCookie(fromHere().origin.startsWith('https:'));
  const { maxAge, secure } = options;
  return `${name}=${token}; Path=/; HttpOnly; SameSite=Lax; Max-Age=${token === '' ? 0 : maxAge}${secure ? '; Secure' : ''}`;
}

/** A step that nobody knows. */
export const NO_STEP: Refusal = refuse('not-found', 'There is no such step.');
