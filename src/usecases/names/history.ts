import { type Refusal, refuse } from '@/core/refusal';
import { type HistoryLine, selectBatches } from '@/database/changes';
import type { Deps } from '../deps';

export type { HistoryLine } from '@/database/changes';

/** A page of what was done in the books, the newest first: `limit` lines `before` a number. */
export async function historyPage(deps: Deps, query: URLSearchParams): Promise<HistoryLine[] | Refusal> {
  const [limit, before] = [Number(query.get('limit') ?? 100), Number(query.get('before') ?? 2 ** 31 - 1)];
  if (!Number.isInteger(limit) || limit < 1 || limit > 1000)
    return refuse('query-invalid', 'limit is 1 to 1,000.', 'limit');
  if (!Number.isInteger(before) || before < 1 || before >= 2 ** 31)
    return refuse('query-invalid', 'before is the number that the page before ended with.', 'before');
  return selectBatches(deps.database, before, limit);
}
