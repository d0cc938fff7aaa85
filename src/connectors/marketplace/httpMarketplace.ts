import { formatInstant } from '@/core/time';
import { isUntouched, mayAsk, notPublic } from '../http/addresses';
import { boundedRequest, type HttpAnswer } from '../http/boundedRequest';
import type { MarketplaceAddress, MarketplaceLink, MarketplaceOutcome } from './port';
import { readAs, readEvents, readListingState, readSaleRef, readThreadRef, readTitle } from './readAnswers';

const TIMEOUT_MS = 10_000;
const MOST_BYTES = 5_000_000;

/** Why an address cannot be a marketplace's; `null` when it can. The key travels with every request: encrypted, but on loopback. */
export function refuseMarketplaceUrl(address: string, allowedHosts: readonly string[]): string | null {
  let url: URL;
  try {
    url = new URL(address);
  } catch {
    return 'Write the marketplace’s address like https://marketplace.example.';
  }
  if (!isUntouched(url)) return 'Write an address that begins with https: the key travels with every request.';
  if (!mayAsk(url.hostname, allowedHosts)) return notPublic(url.hostname);
  return null;
}

/** A marketplace over HTTP, by our own protocol. See docs/marketplace-link.md. */
export function httpMarketplace({ url, key, allowedHosts }: MarketplaceAddress): MarketplaceLink {
  const base = url.replace(/\/$/, '');

  async function ask<T>(
    method: string,
    path: string,
    body: object | null,
    read: (json: unknown) => T,
  ): Promise<MarketplaceOutcome<T>> {
    let response: HttpAnswer;
    try {
      const headers = { authorization: `Bearer ${key}`, ...(body ? { 'content-type': 'application/json' } : {}) };
      response = await boundedRequest(
        `${base}/v1${path}`,
        { method, headers, body: body ? JSON.stringify(body) : null },
        { allowedHosts, timeoutMs: TIMEOUT_MS, mostBytes: MOST_BYTES },
      );
    } catch (error) {
      return { kind: 'unknown', cause: error instanceof Error ? error.message : 'no answer' };
    }
    if (response.status >= 300 && response.status < 400)
      return { kind: 'unknown', cause: 'the marketplace sends on to another address' };
    if (response.status >= 500) return { kind: 'unknown', cause: `the marketplace answered ${response.status}` };
    let json: unknown;
    try {
      json = response.body === '' ? null : JSON.parse(response.body);
    } catch {
      return { kind: 'unknown', cause: 'the answer is not JSON' };
    }
    if (response.status >= 400) {
      const said = (json as { problem?: unknown } | null)?.problem;
      return { kind: 'refused', reason: typeof said === 'string' ? said.slice(0, 300) : `status ${response.status}` };
    }
    const value = readAs(read, json);
    return value === null ? { kind: 'unknown', cause: 'the answer could not be understood' } : { kind: 'done', value };
  }

  const post = <T>(path: string, body: object, read: (json: unknown) => T) => ask('POST', path, body, read);
  const done = () => true as const;
  const at = (name: string) => encodeURIComponent(name);
  return {
    test: () => ask('GET', '/marketplace', null, readTitle),
    list: ({ name, ...listing }) => ask('PUT', `/listings/${at(name)}`, listing, readListingState),
    withdraw: (name) => ask('DELETE', `/listings/${at(name)}`, null, done),
    prove: (name, by, code) => post(`/listings/${at(name)}/proof`, { by, code }, readListingState),
    lowerReserve: (name, reserveMinor) => post(`/listings/${at(name)}/reserve`, { reserveMinor }, done),
    accept: (thread, figure) => post(`/threads/${at(thread)}/accept`, { figure }, readSaleRef),
    counter: (thread, key, minor, lapsesAt) =>
      post(`/threads/${at(thread)}/counter`, { key, minor, lapsesAt: lapsesAt && formatInstant(lapsesAt) }, done),
    decline: (thread) => post(`/threads/${at(thread)}/decline`, {}, done),
    offerTo: (name, key, minor, lapsesAt) =>
      post(`/listings/${at(name)}/offer`, { key, minor, lapsesAt: formatInstant(lapsesAt) }, readThreadRef),
    answerSale: (sale, answer) => post(`/sales/${at(sale)}/answer`, { answer }, done),
    handedOver: (sale, code) => post(`/sales/${at(sale)}/handed-over`, { code }, done),
    events: (cursor) => ask('GET', `/events?after=${cursor}`, null, readEvents),
  };
}
