import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { beginInvitedPasskey, comeInByPasskey, comeInByPassPhrase, enrolInvited } from '@/usecases/people/invitations';
import { answer, readJson } from '../../../http/problem';
import { answerSignedIn, fromHere, NO_STEP } from '../../../http/signedIn';

/** The steps of taking an invitation up. */
export function POST(
  request: Request,
  { params }: { params: Promise<{ token: string; step: string }> },
): Promise<Response> {
  return answer(async () => {
    const { token, step } = await params;
    const from = fromHere();
    switch (step) {
      case 'enrol': {
        const enrolment = await enrolInvited(deps(), token);
        return isRefusal(enrolment) ? enrolment : Response.json(enrolment);
      }
      case 'pass-phrase':
        return answerSignedIn(await comeInByPassPhrase(deps(), from, token, await readJson(request)));
      case 'passkey-options': {
        const begun = await beginInvitedPasskey(deps(), from, token);
        return isRefusal(begun) ? begun : Response.json(begun);
      }
      case 'passkey': {
        const sent = (await readJson(request)) as { label?: unknown };
        return answerSignedIn(
          await comeInByPasskey(deps(), from, token, sent as never, typeof sent.label === 'string' ? sent.label : ''),
        );
      }
      default:
        return NO_STEP;
    }
  });
}
