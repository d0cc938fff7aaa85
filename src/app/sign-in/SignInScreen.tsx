'use client';
import { startAuthentication } from '@simplewebauthn/browser';
import { useState } from 'react';
import { isRefusal, type Refusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Answer, Head, Section } from '@/ui/text/Sheet';
import { Doorway } from '../acts/signIn/Doorway';
import { passkeyProblem, step } from '../acts/signIn/steps';

type Way = 'pass phrase' | 'recovery code';

/** Signs in: by passkey at once, else by pass phrase with a code, and where all is lost by a recovery code. */
export function SignInScreen({ back }: { back: string }) {
  const [way, setWay] = useState<Way>('pass phrase');
  const [problem, setProblem] = useState<string | null>(null);
  // The whole page is loaded anew: what was drawn for nobody is drawn for somebody now.
  const goOn = () => window.location.assign(back);
  const byPasskey = async () => {
    setProblem(null);
    const begun = await step<{ options: never; token: string }>('/sign-in/passkey-options');
    if (isRefusal(begun)) return setProblem(begun.message);
    try {
      const response = await startAuthentication({ optionsJSON: begun.options });
      const done = await step('/sign-in/passkey', { token: begun.token, response });
      if (isRefusal(done)) setProblem(done.message);
      else goOn();
    } catch (error) {
      setProblem(passkeyProblem(error).message);
    }
  };
  return (
    <Doorway>
      <Head>
        <Answer>Who are you?</Answer>
      </Head>
      <Section aria-label="By passkey">
        <Actions>
          <Button data-kind="primary" onPress={() => void byPasskey()}>
            Sign in with a passkey
          </Button>
        </Actions>
        {problem && (
          <p className="caution" role="alert">
            {problem}
          </p>
        )}
      </Section>
      {way === 'pass phrase' ? <ByPassPhrase onDone={goOn} /> : <ByRecoveryCode onDone={goOn} />}
      <Actions>
        <Button
          data-kind="plain"
          style={{ marginLeft: -7 }}
          onPress={() => setWay(way === 'pass phrase' ? 'recovery code' : 'pass phrase')}
        >
          {way === 'pass phrase' ? 'I have only a recovery code' : 'I have my pass phrase'}
        </Button>
      </Actions>
    </Doorway>
  );
}

function ByPassPhrase({ onDone }: { onDone: () => void }) {
  const [refused, setRefused] = useState<Refusal | null>(null);
  const send = async (form: FormData) => {
    const done = await step('/sign-in/pass-phrase', {
      name: textOf(form, 'name'),
      passPhrase: textOf(form, 'passPhrase'),
      code: textOf(form, 'code'),
    });
    if (isRefusal(done)) setRefused(done);
    else onDone();
  };
  return (
    <Form aria-label="Sign in with a pass phrase" refused={refused} onSubmit={send}>
      <Section>
        <h2>Or with your pass phrase</h2>
        <Field name="name" label="Name" autoComplete="username" />
        <Field name="passPhrase" label="Pass phrase" type="password" autoComplete="current-password" />
        <Field
          name="code"
          label="Code"
          inputMode="numeric"
          autoComplete="one-time-code"
          hint="six figures, from your app"
        />
        <Actions>
          <Button type="submit">Sign in</Button>
        </Actions>
      </Section>
    </Form>
  );
}

function ByRecoveryCode({ onDone }: { onDone: () => void }) {
  const [refused, setRefused] = useState<Refusal | null>(null);
  const send = async (form: FormData) => {
    const done = await step('/sign-in/recovery-code', {
      name: textOf(form, 'name'),
      recoveryCode: textOf(form, 'recoveryCode'),
    });
    if (isRefusal(done)) setRefused(done);
    else onDone();
  };
  return (
    <Form aria-label="Sign in with a recovery code" refused={refused} onSubmit={send}>
      <Section>
        <h2>Or with a recovery code</h2>
        <Field name="name" label="Name" autoComplete="username" />
        <Field
          name="recoveryCode"
          label="Recovery code"
          mono
          autoComplete="off"
          hint="good once; set up another way at once"
        />
        <Actions>
          <Button type="submit">Sign in</Button>
        </Actions>
      </Section>
    </Form>
  );
}
