import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { beginSignIn, signInByPasskey } from '@/usecases/people/passkeys';
import { endOwnSessions } from '@/usecases/people/sessions';
import { signInByPassPhrase, signInByRecoveryCode } from '@/usecases/people/signIn';
import { answer, readJson } from '../../http/problem';
import { answerSignedIn, answerSignedOut, fromHere, NO_STEP } from '../../http/signedIn';

/**
 * The steps of signing in. They are routes of their own, not functions of a page: whoever has not signed in can call nothing else of the
 * program.
 */
export function POST(request: Request, { params }: { params: Promise<{ step: string }> }): Promise<Response> {
  return answer(async () => {
    const { step } = await params;
    const from = fromHere();
    switch (step) {
      case 'passkey-options': {
        const begun = await beginSignIn(deps(), from);
        return isRefusal(begun) ? begun : Response.json(begun);
      }
      case 'passkey':
        return answerSignedIn(await signInByPasskey(deps(), from, (await readJson(request)) as never));
      case 'pass-phrase':
        return answerSignedIn(await signInByPassPhrase(deps(), from, await readJson(request)));
      case 'recovery-code':
        return answerSignedIn(await signInByRecoveryCode(deps(), from, await readJson(request)));
      case 'out':
        if (from.session) await endOwnSessions(deps(), { only: from.session.id });
        return answerSignedOut();
      default:
        return NO_STEP;
    }
  });
}
