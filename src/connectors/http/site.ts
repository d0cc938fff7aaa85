import { boundedRequest, type HttpLimits } from './boundedRequest';

const HTTP_PORT = 80;
const SITE_MS = 4000;
const MOST_BYTES = 500_000;

/**
 * How a site answers at an address: its status, where it sends on to, or that it does not answer. It is asked by address, so that no
 * other resolver is. `null` where that address may not be asked.
 */
export async function lookAtSite(
  address: string,
  host: string,
  { allowedHosts }: Pick<HttpLimits, 'allowedHosts'>,
  port = HTTP_PORT,
): Promise<string | null> {
  try {
    const { status, headers } = await boundedRequest(
      `http://${address}:${port}/`,
      { headers: { host } },
      { allowedHosts, timeoutMs: SITE_MS, mostBytes: MOST_BYTES },
    );
    return headers.location ? `${status}, on to ${headers.location.slice(0, 200)}` : String(status);
  } catch (error) {
    const cause = error instanceof Error ? error.message : '';
    return cause.includes('not at a public address') ? null : 'no answer';
  }
}
