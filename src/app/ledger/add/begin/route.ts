import { isRefusal } from '@/core/refusal';
import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { LARGEST_FILE } from '@/usecases/limits';
import { orTookTooLong } from '@/usecases/tookTooLong';
import { readBody } from '../../../http/body';
import { answer } from '../../../http/problem';

/** Takes in a list as the body of the request. Answers `{ id }`, or why it is refused. */
export function POST(request: Request): Promise<Response> {
  return answer(async () => {
    const query = new URL(request.url).searchParams;
    const content = await readBody(request, LARGEST_FILE);
    const begun = isRefusal(content)
      ? content
      : await orTookTooLong(
          compute(deps(), 'beginImport', {
            content,
            source: query.get('source') ?? 'pasted',
            accountId: Number(query.get('accountId')) || null,
            accountLabel: query.get('accountLabel'),
          }),
        );
    // The screen shows the refusal as it is.
    return isRefusal(begun) ? Response.json(begun, { status: 422 }) : Response.json({ id: begun.id });
  });
}
