import { request as requestPlain } from 'node:http';
import { request as requestTls } from 'node:https';
import { mayAsk, publicLookup } from './addresses';

/** How far a server of somebody else is trusted: which hosts off the public addresses, how long, how much. */
export interface HttpLimits {
  /** Hosts that may be asked although they are not at a public address. */
  readonly allowedHosts: readonly string[];
  /** For the whole exchange, from the first octet sent to the last one read. */
  readonly timeoutMs?: number;
  readonly mostBytes?: number;
}

export interface HttpQuestion {
  readonly method?: string;
  readonly headers?: Readonly<Record<string, string>>;
  readonly body?: string | null;
}

export interface HttpAnswer {
  readonly status: number;
  readonly headers: Readonly<Record<string, string | undefined>>;
  readonly body: string;
}

/**
 * One question over HTTP, to hosts that may be asked only, with a limit on time and size that holds while the answer is read.
 * Redirects are not followed. Throws with a cause that can be shown.
 */
export function boundedRequest(
  address: string,
  { method = 'GET', headers = {}, body = null }: HttpQuestion,
  { allowedHosts, timeoutMs = 10_000, mostBytes = 1_000_000 }: HttpLimits,
): Promise<HttpAnswer> {
  return new Promise((resolve, reject) => {
    const url = URL.canParse(address) ? new URL(address) : null;
    if (url === null) throw new Error('its address cannot be read');
    if (url.protocol !== 'http:' && url.protocol !== 'https:') throw new Error(`${url.protocol} is not asked`);
    if (!mayAsk(url.hostname, allowedHosts)) throw new Error(`${url.hostname} is not at a public address`);
    const ask = url.protocol === 'https:' ? requestTls : requestPlain;
    const signal = AbortSignal.timeout(timeoutMs);
    const options = {
      method,
      headers: { ...headers, ...(body === null ? {} : { 'content-length': String(Buffer.byteLength(body)) }) },
      lookup: publicLookup(allowedHosts) as never,
      signal,
    };
    const request = ask(url, options, (response) => {
      const pieces: Buffer[] = [];
      let size = 0;
      response.on('data', (piece: Buffer) => {
        size += piece.length;
        if (size <= mostBytes) {
          pieces.push(piece);
          return;
        }
        reject(new Error(`the answer is longer than ${mostBytes} bytes`));
        request.destroy();
      });
      response.on('end', () =>
        resolve({
          status: response.statusCode ?? 0,
          headers: response.headers as HttpAnswer['headers'],
          body: Buffer.concat(pieces).toString('utf8'),
        }),
      );
      response.on('error', reject);
      response.on('aborted', () => reject(new Error(signal.aborted ? 'no answer in time' : 'the answer broke off')));
    });
    request.on('error', (error) => reject(signal.aborted ? new Error('no answer in time') : error));
    request.end(body ?? undefined);
  });
}
