import { deps } from '@/usecases/deps';
import { reviewCsv, reviewEntriesCsv } from '@/usecases/prospects/review';
import { answer, written } from '../../../http/problem';

/** A review as a file: its lines, or with `what=entries` every entry of its period. */
export function GET(request: Request): Promise<Response> {
  return answer(async () => {
    const query = new URL(request.url).searchParams;
    const wantsEntries = query.get('what') === 'entries';
    const text = await (wantsEntries ? reviewEntriesCsv(deps(), query) : reviewCsv(deps(), query));
    const year = query.get('year') ?? 'all';
    const file = written(typeof text === 'string' ? new TextEncoder().encode(text) : text, 'text/csv; charset=utf-8');
    if (file instanceof Response)
      file.headers.set(
        'content-disposition',
        `attachment; filename="${wantsEntries ? 'entries' : 'review'}-${/^\d{4}$/.test(year) ? year : 'all'}.csv"`,
      );
    return file;
  });
}
