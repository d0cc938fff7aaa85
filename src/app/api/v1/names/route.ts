import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { answer, written } from '../../../http/problem';

/** Names by filter and order, paged; or the whole view as CSV. */
export function GET(request: Request): Promise<Response> {
  return answer(async () => {
    const query = new URL(request.url).searchParams;
    return query.get('format') === 'csv'
      ? written(await compute(deps(), 'exportCsv', query.toString()), 'text/csv; charset=utf-8')
      : written(await compute(deps(), 'pageOfNames', query.toString()), 'application/json');
  });
}
