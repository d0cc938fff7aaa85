import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { renewByName } from '@/usecases/orders/documents';
import { answer, readJson } from '../../../http/problem';

/** Takes down renewals that were carried out, once for each idempotency key. */
export function POST(request: Request): Promise<Response> {
  return answer(async () => {
    const body = await readJson(request);
    if (isRefusal(body)) return body;
    const renewed = await renewByName(deps(), body, request.headers.get('idempotency-key'));
    return isRefusal(renewed) ? renewed : Response.json(renewed, { status: 201 });
  });
}
