import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { refusedRowsCsv } from '@/usecases/imports/preview';

/** The refused rows with their reasons, to be mended and brought again. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const csv = await refusedRowsCsv(deps(), (await params).id);
  if (isRefusal(csv)) return Response.json(csv, { status: 404 });
  return new Response(csv, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="refused.csv"',
    },
  });
}
