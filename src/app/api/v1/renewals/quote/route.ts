import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { quoteByName } from '@/usecases/orders/documents';
import { answer, readJson } from '../../../../http/problem';

/** What renewing would do and cost. */
export function POST(request: Request): Promise<Response> {
  return answer(async () => {
    const body = await readJson(request);
    if (isRefusal(body)) return body;
    const quote = await quoteByName(deps(), body);
    return isRefusal(quote) ? quote : Response.json(quote);
  });
}
