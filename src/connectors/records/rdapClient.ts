import { readRdapError } from '@/formats/rdap/readRdap';
import { boundedRequest, type HttpAnswer, type HttpLimits } from '../http/boundedRequest';

export type { HttpLimits } from '../http/boundedRequest';

/** What came of asking an RDAP server for one object. */
export type RdapAnswer =
  | { readonly kind: 'found'; readonly json: unknown; readonly raw: string; readonly etag: string | null }
  | { readonly kind: 'not there' }
  | { readonly kind: 'unchanged' }
  /** Too many questions: ask again after so many seconds. */
  | { readonly kind: 'later'; readonly seconds: number }
  | { readonly kind: 'failed'; readonly cause: string };

const MOST_REDIRECTS = 5;
const USUAL_WAIT_S = 60;
const MOST_WAIT_S = 86_400;

/**
 * Asks for a domain (RFC 9082 section 3.1.3), with redirects, `Retry-After`, a limit on time and size, and a condition when the
 * last answer's tag is known. Never throws.
 */
export async function askRdap(
  base: string,
  ascii: string,
  limits: HttpLimits,
  etag: string | null = null,
): Promise<RdapAnswer> {
  return askRdapAt(`${base}domain/${ascii}`, limits, etag);
}

/** Asks at an address that a record has named. */
export async function askRdapAt(address: string, limits: HttpLimits, etag: string | null = null): Promise<RdapAnswer> {
  let url = address;
  for (let hops = 0; hops <= MOST_REDIRECTS; hops += 1) {
    let answer: HttpAnswer;
    try {
      const headers = { accept: 'application/rdap+json', ...(etag ? { 'if-none-match': etag } : {}) };
      answer = await boundedRequest(url, { headers }, limits);
    } catch (error) {
      return { kind: 'failed', cause: error instanceof Error ? error.message : 'no answer' };
    }
    const { status, headers, body } = answer;
    if (status >= 300 && status < 400 && status !== 304 && headers.location) {
      if (!URL.canParse(headers.location, url))
        return { kind: 'failed', cause: 'it sends on to an address that cannot be read' };
      url = new URL(headers.location, url).toString();
      continue;
    }
    if (status === 304) return { kind: 'unchanged' };
    if (status === 404) return { kind: 'not there' };
    if (status === 429 || status === 503) return { kind: 'later', seconds: retryAfter(headers['retry-after']) };
    if (status !== 200) return { kind: 'failed', cause: errorOf(status, body) };
    try {
      return { kind: 'found', json: JSON.parse(body), raw: body, etag: headers.etag ?? null };
    } catch {
      return { kind: 'failed', cause: 'the answer is not JSON' };
    }
  }
  return { kind: 'failed', cause: 'it was sent on too often' };
}

function errorOf(status: number, body: string): string {
  let said: string | null = null;
  try {
    said = readRdapError(JSON.parse(body))?.slice(0, 200) ?? null;
  } catch {
    // An error need not be JSON: its number says enough.
  }
  return `the server answered ${status}${said ? `, ${said}` : ''}`;
}

/** `Retry-After` in seconds or as a date (RFC 9110 section 10.2.3), within a day. */
function retryAfter(header: string | undefined): number {
  const seconds = /^\d+$/.test(header ?? '') ? Number(header) : (Date.parse(header ?? '') - Date.now()) / 1000;
  return Number.isFinite(seconds) && seconds > 0 ? Math.min(Math.ceil(seconds), MOST_WAIT_S) : USUAL_WAIT_S;
}
