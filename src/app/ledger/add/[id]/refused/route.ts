import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { IMPORT_UNKNOWN, refusedRowsCsv } from '@/usecases/imports/preview';
import { uuidIn } from '../../../../http/params';
import { answer } from '../../../../http/problem';
import { streamed } from '../../../../http/streamed';

/** The refused rows with their reasons, to be mended and brought again. */
export function GET(_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return answer(async () => {
    const id = uuidIn((await params).id);
    const csv = id === null ? IMPORT_UNKNOWN : await refusedRowsCsv(deps(), id);
    if (isRefusal(csv)) return csv;
    const headers = {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="refused.csv"',
    };
    return new Response(streamed(csv), { headers });
  });
}
