import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { listingsCsv } from '@/usecases/selling/listingsCsv';
import { rowIdIn } from '../../../http/params';

/** The listings of one marketplace in its own columns. */
export async function GET(_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const csv = await listingsCsv(deps(), rowIdIn((await params).id));
  if (isRefusal(csv)) return new Response(csv.message, { status: 404 });
  return new Response(csv, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="listings.csv"',
    },
  });
}
