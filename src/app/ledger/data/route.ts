import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { answer, written } from '../../http/problem';

/**
 * The whole ledger for the browser's worker, or what has changed `since` a version of it. The browser keeps it and asks each time whether it still holds (RFC 9110
 * section 13): `src/server/keptAnswers.ts` tells it so while nothing has changed.
 */
export function GET(request: Request): Promise<Response> {
  return answer(async () => {
    const ledger = written(
      await compute(deps(), 'ledger', new URL(request.url).searchParams.get('since')),
      'application/octet-stream',
    );
    if (ledger instanceof Response) ledger.headers.set('cache-control', 'private, no-cache');
    return ledger;
  });
}
