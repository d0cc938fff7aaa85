import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { answer, written } from '../../http/problem';

/** What is known of own names on offer, for the browser's worker. It holds as long as the ledger does: `src/server/keptAnswers.ts` tells so. */
export function GET(): Promise<Response> {
  return answer(async () => {
    const offers = written(await compute(deps(), 'offers'), 'application/octet-stream');
    if (offers instanceof Response) offers.headers.set('cache-control', 'private, no-cache');
    return offers;
  });
}
