import { askForNames } from '@/usecases/acquiring/askForNames';
import { askingProgress } from '@/usecases/acquiring/ideas';
import { deps } from '@/usecases/deps';
import { answer } from '../../http/problem';

/** One request takes the asking a little further; the jobs do the rest when the window is closed. */
const FOR_MS = 1500;

/** Asks for some of the names that wait. Answers how far the asking has come for one set, and whether anything was asked. */
export function POST(request: Request): Promise<Response> {
  return answer(async () => {
    const setId = Number(new URL(request.url).searchParams.get('set'));
    const settled = await askForNames(deps(), FOR_MS);
    return Response.json({ settled, progress: await askingProgress(deps(), setId) });
  });
}
