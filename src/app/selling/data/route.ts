import { deps } from '@/usecases/deps';
import { listingLines } from '@/usecases/selling/report';

/** Every current listing, for the list in the browser. */
export async function GET(): Promise<Response> {
  return Response.json(await listingLines(deps()), { headers: { 'cache-control': 'private, no-store' } });
}
