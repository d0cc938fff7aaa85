import type { IncomingHttpHeaders } from 'node:http';
import { parseCookie } from 'cookie';
import { isMember, type Who } from '@/core/people';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import type { Deps } from '@/usecases/deps';
import { sessionCookie } from '@/usecases/people/cookie';
import { type Identified, identify } from '@/usecases/people/identify';

/** What anybody may read: the way in itself, what is needed to draw it, whether the program is well, and what has a token of its own. */
const OPEN_PAGES = /^\/(sign-in|invited\/[\w-]{1,100})$/;
const OPEN_FILES = /^\/(_next\/static\/.+|icon\.svg|favicon\.ico|api\/v1\/health|api\/v1\/calendar\.ics)$/;
/** What anybody may send: the steps of signing in. */
const OPEN_STEPS = /^\/(sign-in\/[a-z-]+|invited\/[\w-]{1,100}\/[a-z-]+)$/;

/** What is asked, as far as it decides who may. */
export interface AskedFor {
  readonly method: string;
  readonly path: string;
  /** A function of the framework is called by its number, whatever the address says. */
  readonly isAction: boolean;
}

/** Whether something tells nothing of the ledger, so that nobody is asked who he is. */
export function isForAnybody({ method, path, isAction }: AskedFor): boolean {
  return !isAction && (method === 'GET' || method === 'HEAD') && OPEN_FILES.test(path);
}

/** Whether a stranger may ask for something. */
export function isOpen({ method, path, isAction }: AskedFor): boolean {
  if (isAction) return false;
  if (method === 'GET' || method === 'HEAD') return OPEN_PAGES.test(path) || OPEN_FILES.test(path);
  return method === 'POST' && OPEN_STEPS.test(path);
}

const SIGN_IN = refuse('sign-in-needed', 'Sign in first.');
const API_ONLY = refuse('token-for-api', 'A token opens /api only. People sign in.');

/** Why `who` may not ask for something at all; what he may do with it is decided where it is done. */
export function refuseAsker(who: Who, asked: AskedFor): Refusal | null {
  if (who.kind === 'stranger') return isOpen(asked) ? null : SIGN_IN;
  if (isMember(who) && who.kind === 'program' && !asked.path.startsWith('/api/')) return API_ONLY;
  return null;
}

const BEARER = /^Bearer +([\w~+/.=-]{1,200})$/i;

const DATABASE_AWAY = refuse(
  'database-away',
  'The database does not answer. Who you are cannot be told meanwhile; try again soon.',
);

/** Whether anybody could sign in when the database was last asked. */
let wasGuarded = true;

/** Who asks as long as the database does not say: a stranger, unless nobody needed to sign in when it last did. */
export function whoMeanwhile(): Identified {
  return { who: { kind: wasGuarded ? 'stranger' : 'office' }, session: null };
}

/**
 * Who sends these headers; a refusal where what they show holds no longer. While the database is away, a program that asked nobody to sign
 * in goes on as it did, so that it can say so; any other lets nobody in.
 */
export async function whoAsks(
  deps: Deps,
  headers: IncomingHttpHeaders,
  isSecure: boolean,
): Promise<Identified | Refusal> {
  try {
    const known = await byHeaders(deps, headers, isSecure);
    wasGuarded = isRefusal(known) || known.who.kind !== 'office';
    return known;
  } catch (error) {
    deps.log.error({ err: error }, 'who asks could not be told');
    return wasGuarded ? DATABASE_AWAY : whoMeanwhile();
  }
}

async function byHeaders(deps: Deps, headers: IncomingHttpHeaders, isSecure: boolean): Promise<Identified | Refusal> {
  const session = parseCookie(headers.cookie ?? '')[sessionCookie(isSecure).name] ?? null;
  const { authorization } = headers;
  if (authorization === undefined) return identify(deps, { session, bearer: null });
  const bearer = BEARER.exec(authorization)?.[1];
  return bearer === undefined
    ? refuse('token-invalid', 'Send the token as “Authorization: Bearer …”.')
    : identify(deps, { session: null, bearer });
}

/** Whether a refusal says that somebody must say who he is, rather than that he may not. */
export function wantsSignIn(refusal: Refusal | null): boolean {
  return isRefusal(refusal) && (refusal.code === 'sign-in-needed' || refusal.code === 'token-invalid');
}
