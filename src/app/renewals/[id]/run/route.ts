import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { runCsv } from '@/usecases/runs/runCsv';

/** A run as CSV: each name with what was charged and its receipt. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  const csv = /^[0-9a-f-]{36}$/.test(id) ? await runCsv(deps(), id) : null;
  if (csv === null || isRefusal(csv)) return new Response('This run is no longer there.', { status: 404 });
  return new Response(csv, {
    headers: { 'content-type': 'text/csv; charset=utf-8', 'content-disposition': 'attachment; filename="run.csv"' },
  });
}
