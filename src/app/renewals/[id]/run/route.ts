import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { runCsv } from '@/usecases/orders/runCsv';
import { uuidIn } from '../../../http/params';

/** A run as CSV: each name with what was charged and its receipt. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const id = uuidIn((await params).id);
  const csv = id === null ? null : await runCsv(deps(), id);
  if (csv === null || isRefusal(csv)) return new Response('This run is no longer there.', { status: 404 });
  return new Response(csv, {
    headers: { 'content-type': 'text/csv; charset=utf-8', 'content-disposition': 'attachment; filename="run.csv"' },
  });
}
