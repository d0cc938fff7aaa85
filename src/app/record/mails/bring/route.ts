import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { LARGEST_MAILS } from '@/usecases/limits';
import { takeInMails } from '@/usecases/mails/takeIn';
import { readBody } from '../../../http/body';
import { answer } from '../../../http/problem';

/** Takes in a mail or a mailbox file as the body of the request. Answers what came of it, or why it is refused. */
export function POST(request: Request): Promise<Response> {
  return answer(async () => {
    const content = await readBody(request, LARGEST_MAILS);
    const taken = isRefusal(content) ? content : await takeInMails(deps(), content, 'dropped');
    // The screen shows the refusal as it is.
    return Response.json(taken, { status: isRefusal(taken) ? 422 : 200 });
  });
}
