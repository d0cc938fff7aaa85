import { isRefusal } from '@/core/refusal';
import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { LARGEST_FILE } from '@/usecases/limits';
import { orTookTooLong } from '@/usecases/tookTooLong';
import { readBody } from '../../../../http/body';
import { answer } from '../../../../http/problem';

/** Brings in names from a list as the body. With `dryRun` it only tells what would come of it. */
export function POST(request: Request): Promise<Response> {
  return answer(async () => {
    const query = new URL(request.url).searchParams;
    const content = await readBody(request, LARGEST_FILE);
    if (isRefusal(content)) return content;
    const told = await orTookTooLong(
      compute(deps(), 'importAtOnce', {
        content,
        account: query.get('account'),
        dateOrder: query.get('dateOrder'),
        decimalMark: query.get('decimalMark'),
        takeMoves: query.get('takeMoves') === 'true',
        fullList: query.get('fullList') === 'true',
        allowPrivateEndings: query.get('allowPrivateEndings') === 'true',
        dryRun: /^(true|1|yes|)$/.test(query.get('dryRun') ?? 'no'),
      }),
    );
    return isRefusal(told) ? told : Response.json(told);
  });
}
