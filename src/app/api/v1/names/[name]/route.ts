import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { nameOn, patchName } from '@/usecases/names/one';
import { answer, readJson } from '../../../problem';

type NameContext = { params: Promise<{ name: string }> };

/** One name, today or as of a day ahead. */
export function GET(request: Request, { params }: NameContext): Promise<Response> {
  return answer(async () => {
    const { name } = await params;
    const found = await nameOn(deps(), decodeURIComponent(name), new URL(request.url).searchParams);
    return isRefusal(found) ? found : Response.json(found);
  });
}

/** Changes a name. What is left out stays as it is. */
export function PATCH(request: Request, { params }: NameContext): Promise<Response> {
  return answer(async () => {
    const { name } = await params;
    const body = await readJson(request);
    if (isRefusal(body)) return body;
    const changed = await patchName(deps(), decodeURIComponent(name), body);
    return isRefusal(changed) ? changed : Response.json(changed);
  });
}
