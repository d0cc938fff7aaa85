import { isRefusal } from '@/core/refusal';
import { dayOf } from '@/core/time';
import { deps } from '@/usecases/deps';
import { exportCsv, exportJson } from '@/usecases/names/export';
import { answer } from '../../../problem';

/** The view on screen as a file to keep, CSV or JSON. */
export function GET(request: Request): Promise<Response> {
  return answer(async () => {
    const query = new URL(request.url).searchParams;
    const json = query.get('format') === 'json';
    const text = await (json ? exportJson : exportCsv)(deps(), query);
    if (isRefusal(text)) return text;
    const name = `names-${dayOf(deps().clock())}.${json ? 'json' : 'csv'}`;
    const type = json ? 'application/json' : 'text/csv; charset=utf-8';
    return new Response(text, {
      headers: { 'content-type': type, 'content-disposition': `attachment; filename="${name}"` },
    });
  });
}
