import { deps } from '@/usecases/deps';
import { ledgerJson, ledgerVersion } from '@/usecases/names/ledger';

/**
 * The whole ledger for the browser's worker. The browser keeps it and asks each time whether it still holds (RFC 9110
 * section 13): the answer is 304 while nothing has changed.
 */
export async function GET(request: Request): Promise<Response> {
  const etag = `"${await ledgerVersion(deps())}"`;
  const headers = { etag, 'cache-control': 'private, no-cache', 'content-type': 'application/json' };
  if (request.headers.get('if-none-match') === etag) return new Response(null, { status: 304, headers });
  return new Response(await ledgerJson(deps()), { headers });
}
