import { tooLarge } from '@/usecases/limits';
import { bodyLimit } from './limits';

/** What is looked at of a request before anything else is done with it. */
export interface Knock {
  readonly method: string;
  /** The target as it stands in the request line. */
  readonly url: string;
  readonly headers: Readonly<Record<string, string | string[] | undefined>>;
  /** It has come from beyond this machine: only the name under which the program is shown there is ours. */
  readonly isFromOutside?: boolean;
}

/** Why a request is not let in. Codes are stable; the message says what to do. */
export interface TurnedAway {
  readonly status: 400 | 401 | 403 | 405 | 411 | 413 | 415 | 503;
  readonly code: string;
  readonly message: string;
}

const LOOPBACK = /^(127\.0\.0\.1|localhost|\[::1\])(:\d{1,5})?$/i;
const READS = ['GET', 'HEAD'];
const WRITES = ['POST', 'PUT', 'PATCH', 'DELETE'];
/** The types that a form or a script elsewhere can send without being asked first (Fetch standard, CORS-safelisted). */
const FORM_TYPES = /^\s*(text\/plain|application\/x-www-form-urlencoded|multipart\/form-data)\s*(;|$)/i;
const FORWARDED = ['forwarded', 'x-forwarded-host', 'x-forwarded-proto', 'x-forwarded-port', 'x-forwarded-for'];

const one = (value: string | string[] | undefined) => (Array.isArray(value) ? value.join(', ') : value);

/**
 * Whether a request is let in; `null` when it is. Every request passes here, whatever its headers say: it must name this
 * machine (or `publicOrigin`, where a proxy of the office stands in front), come from this program's own pages or from a
 * program, and carry no more than its route takes. A page elsewhere may lead here by a link, but can neither read nor write.
 * Sources: Fetch Metadata (Sec-Fetch-Site), RFC 9110 sections 15.5.6, 15.5.12, 15.5.14, 15.5.16.
 */
export function turnAway(
  { method, url, headers, isFromOutside = false }: Knock,
  publicOrigin: URL | null = null,
): TurnedAway | null {
  if (!url.startsWith('/') || url.startsWith('//') || !isDecodable(url))
    return { status: 400, code: 'target-unreadable', message: 'The address of this request cannot be read.' };
  const host = one(headers.host) ?? '';
  const isOurs = (!isFromOutside && LOOPBACK.test(host)) || (publicOrigin !== null && host === publicOrigin.host);
  if (!isOurs) return { status: 403, code: 'foreign-host', message: 'This program answers on its own machine only.' };
  if (!READS.includes(method) && !WRITES.includes(method))
    return { status: 405, code: 'method-unknown', message: `${method.slice(0, 20)} is not understood here.` };
  const origin = one(headers.origin);
  const isSameOrigin = origin !== undefined && hostOf(origin) === host;
  if (origin !== undefined && !isSameOrigin)
    return { status: 403, code: 'foreign-origin', message: 'Pages of other sites may not ask here.' };
  const path = url.split(/[?#]/, 1)[0] ?? '/';
  const site = one(headers['sec-fetch-site']);
  if (site !== undefined && site !== 'same-origin' && site !== 'none' && !isFollowedLink(method, path, headers))
    return { status: 403, code: 'foreign-site', message: 'Pages of other sites may not ask here.' };
  return WRITES.includes(method) ? refuseBody(path, headers, isSameOrigin) : null;
}

function isDecodable(url: string): boolean {
  try {
    decodeURIComponent(url.split(/[?#]/, 1)[0] ?? '');
    return true;
  } catch {
    return false;
  }
}

/** A link that somebody followed to a page, from a mail say: it shows the page and changes nothing. */
function isFollowedLink(method: string, path: string, headers: Knock['headers']): boolean {
  return (
    READS.includes(method) &&
    !path.startsWith('/api/') &&
    one(headers['sec-fetch-mode']) === 'navigate' &&
    one(headers['sec-fetch-dest']) === 'document'
  );
}

function refuseBody(path: string, headers: Knock['headers'], isSameOrigin: boolean): TurnedAway | null {
  const type = one(headers['content-type']);
  if (!isSameOrigin && (type === undefined || FORM_TYPES.test(type)))
    return {
      status: 415,
      code: 'content-type-unfit',
      message: 'Say what the body is, in a content type that no form sends: application/json, or text/csv for a list.',
    };
  const limit = bodyLimit(path);
  const length = one(headers['content-length']);
  if (length === undefined && one(headers['transfer-encoding']) !== undefined && !limit.streamed)
    return { status: 411, code: 'length-missing', message: 'Say how long the body is (Content-Length).' };
  if (length !== undefined && Number(length) > limit.bytes)
    return { status: 413, code: 'body-too-large', message: tooLarge(limit.bytes) };
  return null;
}

function hostOf(origin: string): string | null {
  try {
    return new URL(origin).host;
  } catch {
    return null;
  }
}

/**
 * Takes away what a request says of having been forwarded, unless a proxy is configured: otherwise any program could claim
 * to come from elsewhere. With a proxy only its own public origin is handed on.
 */
export function trustForwarded(headers: Record<string, string | string[] | undefined>, publicOrigin: URL | null): void {
  for (const name of FORWARDED) delete headers[name];
  if (publicOrigin === null || headers.host !== publicOrigin.host) return;
  headers['x-forwarded-host'] = publicOrigin.host;
  headers['x-forwarded-proto'] = publicOrigin.protocol.replace(':', '');
}
