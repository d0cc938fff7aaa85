import { deps } from '@/usecases/deps';
import { health } from '@/usecases/health/health';

/** How each part of the program is: 200 when the database answers, else 503; the body tells all parts either way. */
export async function GET(): Promise<Response> {
  const now = await health(deps());
  return Response.json(now, { status: now.revision === null ? 503 : 200 });
}
