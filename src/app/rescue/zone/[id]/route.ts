import { deps } from '@/usecases/deps';
import { keptZone } from '@/usecases/rescue/drop';

/** The zone that was kept of a name when it was dropped (RFC 1035). */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  const zone = /^\d{1,9}$/.test(id) ? await keptZone(deps(), Number(id)) : null;
  if (zone === null) return new Response('No zone was kept of this name.', { status: 404 });
  return new Response(zone, {
    headers: { 'content-type': 'text/dns; charset=utf-8', 'content-disposition': 'attachment; filename="zone.txt"' },
  });
}
