import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { ledgerVersion } from '@/usecases/names/ledger';
import { answer } from '../../api/problem';

/**
 * The whole ledger for the browser's worker. The browser keeps it and asks each time whether it still holds (RFC 9110
 * section 13): the answer is 304 while nothing has changed.
 */
export function GET(request: Request): Promise<Response> {
  return answer(async () => {
    const tag = (version: string) => `"${version}"`;
    const headers = { 'cache-control': 'private, no-cache', 'content-type': 'application/json' };
    const known = tag(await ledgerVersion(deps()));
    if (request.headers.get('if-none-match') === known)
      return new Response(null, { status: 304, headers: { ...headers, etag: known } });
    const { version, body } = await compute(deps(), 'ledger');
    return new Response(body as Uint8Array<ArrayBuffer>, { headers: { ...headers, etag: tag(version) } });
  });
}
