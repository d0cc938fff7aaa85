import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { exportCsv } from '@/usecases/names/export';
import { pageOfNames } from '@/usecases/names/list';
import { answer } from '../../problem';

/** Names by filter and order, paged; or the whole view as CSV. */
export function GET(request: Request): Promise<Response> {
  return answer(async () => {
    const query = new URL(request.url).searchParams;
    if (query.get('format') === 'csv') {
      const csv = await exportCsv(deps(), query);
      return isRefusal(csv) ? csv : new Response(csv, { headers: { 'content-type': 'text/csv; charset=utf-8' } });
    }
    const page = await pageOfNames(deps(), query);
    return isRefusal(page) ? page : Response.json(page);
  });
}
