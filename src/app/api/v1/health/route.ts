import { deps } from '@/usecases/deps';
import { health } from '@/usecases/health/health';

/**
 * How each part of the program is: 200 when the database answers, else 503; the body tells all parts either way. A stranger is told whether
 * it is well, and no more.
 */
export async function GET(): Promise<Response> {
  const own = deps();
  const now = await health(own);
  const told = own.who?.kind === 'stranger' ? { ...now, revision: null, parts: [], failedJobs: [] } : now;
  return Response.json(told, { status: now.revision === null ? 503 : 200 });
}
