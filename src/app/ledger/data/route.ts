import { deps } from '@/usecases/deps';
import { ledgerJson, ledgerRevision } from '@/usecases/names/ledger';

/** The whole ledger for the browser's worker. Answers 304 while nothing has changed since the caller's copy. */
export async function GET(request: Request): Promise<Response> {
  const etag = `"${await ledgerRevision(deps())}"`;
  const headers = { etag, 'cache-control': 'no-store', 'content-type': 'application/json' };
  if (request.headers.get('if-none-match') === etag) return new Response(null, { status: 304, headers });
  return new Response(await ledgerJson(deps()), { headers });
}
