'use client';
import { startRegistration } from '@simplewebauthn/browser';
import { useState } from 'react';
import type { Role } from '@/core/people';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { roleWords } from '@/ui/text/peopleWords';
import { Answer, Head, Notice, Section } from '@/ui/text/Sheet';
import type { CameIn } from '@/usecases/people/invitations';
import type { Enrolment } from '@/usecases/people/ways';
import { CodesList } from '../../acts/signIn/CodesList';
import { Doorway } from '../../acts/signIn/Doorway';
import { PassPhraseForm } from '../../acts/signIn/PassPhraseForm';
import { passkeyProblem, step } from '../../acts/signIn/steps';

/** Takes an invitation up: a passkey or a pass phrase, then the codes for when everything is lost. */
export function InvitedScreen({ token, name, role }: { token: string; name: string; role: Role }) {
  const [codes, setCodes] = useState<readonly string[] | null>(null);
  return (
    <Doorway>
      {codes === null ? (
        <>
          <Head>
            <Answer>
              {name}, you are invited as {roleWords(role).as}.
            </Answer>
            <p>{roleWords(role).may} Choose how you sign in; you can add others later.</p>
          </Head>
          <Ways token={token} onIn={(done) => setCodes(done.recoveryCodes)} />
        </>
      ) : (
        <>
          <Head>
            <Answer>You are in. Keep these codes where your key is not.</Answer>
            <p>Each signs you in once, when everything else is lost. They are not shown again.</p>
          </Head>
          <CodesList codes={codes} />
          <Actions>
            {/* The whole page is loaded anew: this one has no frame. */}
            <Button data-kind="primary" onPress={() => window.location.assign('/today')}>
              I have kept them
            </Button>
          </Actions>
        </>
      )}
    </Doorway>
  );
}

function Ways({ token, onIn }: { token: string; onIn: (done: CameIn) => void }) {
  const [problem, setProblem] = useState<string | null>(null);
  const [enrolment, setEnrolment] = useState<Enrolment | null>(null);
  const at = (name: string) => `/invited/${token}/${name}`;
  const byPasskey = async () => {
    setProblem(null);
    const begun = await step<{ options: never; token: string }>(at('passkey-options'));
    if (isRefusal(begun)) return setProblem(begun.message);
    try {
      const response = await startRegistration({ optionsJSON: begun.options });
      const done = await step<CameIn>(at('passkey'), { token: begun.token, response, label: '' });
      if (isRefusal(done)) setProblem(done.message);
      else onIn(done);
    } catch (error) {
      setProblem(passkeyProblem(error).message);
    }
  };
  const byPassPhrase = async () => {
    setProblem(null);
    const made = await step<Enrolment>(at('enrol'));
    if (isRefusal(made)) setProblem(made.message);
    else setEnrolment(made);
  };
  return (
    <>
      <Section aria-label="Ways to sign in">
        <Actions>
          <Button data-kind="primary" onPress={() => void byPasskey()}>
            Make a passkey
          </Button>
          {!enrolment && <Button onPress={() => void byPassPhrase()}>Take a pass phrase with codes</Button>}
        </Actions>
        {problem && <Notice role="alert">{problem}</Notice>}
      </Section>
      {enrolment && (
        <PassPhraseForm
          enrolment={enrolment}
          send={(form) => step<CameIn>(at('pass-phrase'), form)}
          onDone={onIn}
          done="Sign in so from now on"
        />
      )}
    </>
  );
}
