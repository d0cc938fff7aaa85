import { dayOf } from '@/core/time';
import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { answer, written } from '../../../problem';

/** The view on screen as a file to keep, CSV or JSON. */
export function GET(request: Request): Promise<Response> {
  return answer(async () => {
    const query = new URL(request.url).searchParams;
    const isJson = query.get('format') === 'json';
    const body = await compute(deps(), isJson ? 'exportJson' : 'exportCsv', query.toString());
    const name = `names-${dayOf(deps().clock())}.${isJson ? 'json' : 'csv'}`;
    const type = isJson ? 'application/json' : 'text/csv; charset=utf-8';
    return written(body, type, `attachment; filename="${name}"`);
  });
}
