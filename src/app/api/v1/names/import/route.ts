import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { importAtOnce } from '@/usecases/imports/importAtOnce';
import { LARGEST_FILE } from '@/usecases/imports/readImport';
import { answer } from '../../../problem';

/** Brings in names from a CSV or plain text body. With `dryRun` it only tells what would come of it. */
export function POST(request: Request): Promise<Response> {
  return answer(async () => {
    const query = new URL(request.url).searchParams;
    const length = Number(request.headers.get('content-length') ?? 0);
    const content =
      length > LARGEST_FILE ? new Uint8Array(LARGEST_FILE + 1) : new Uint8Array(await request.arrayBuffer());
    const told = await importAtOnce(deps(), {
      content,
      account: query.get('account'),
      dateOrder: query.get('dateOrder'),
      fullList: query.get('fullList') === 'true',
      allowPrivateEndings: query.get('allowPrivateEndings') === 'true',
      dryRun: /^(true|1|yes|)$/.test(query.get('dryRun') ?? 'no'),
    });
    return isRefusal(told) ? told : Response.json(told);
  });
}
