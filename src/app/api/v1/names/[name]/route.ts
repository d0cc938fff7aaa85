import { isRefusal } from '@/core/refusal';
import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { patchName } from '@/usecases/names/one';
import { textIn } from '../../../../http/params';
import { answer, readJson, written } from '../../../../http/problem';

type NameContext = { params: Promise<{ name: string }> };

/** One name, today or as of a day ahead. */
export function GET(request: Request, { params }: NameContext): Promise<Response> {
  return answer(async () => {
    const { name } = await params;
    const query = new URL(request.url).searchParams.toString();
    return written(await compute(deps(), 'nameOn', textIn(name), query), 'application/json');
  });
}

/** Changes a name. What is left out stays as it is. */
export function PATCH(request: Request, { params }: NameContext): Promise<Response> {
  return answer(async () => {
    const { name } = await params;
    const body = await readJson(request);
    if (isRefusal(body)) return body;
    const changed = await patchName(deps(), textIn(name), body);
    if (isRefusal(changed)) return changed;
    return written(await compute(deps(), 'nameOn', textIn(name), ''), 'application/json');
  });
}
