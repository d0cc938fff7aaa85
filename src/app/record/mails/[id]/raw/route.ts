import { refuse } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { rawMail } from '@/usecases/mails/mails';
import { rowIdIn } from '../../../../http/params';
import { answer, written } from '../../../../http/problem';

/** A mail as it came, as a file: evidence that another program can check. */
export function GET(_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return answer(async () => {
    const id = rowIdIn((await params).id);
    const raw = await rawMail(deps(), id);
    return raw
      ? written(new Uint8Array(raw), 'message/rfc822', `attachment; filename="mail-${id}.eml"`)
      : refuse('not-found', 'There is no such mail.');
  });
}
