'use client';
import { useState } from 'react';
import { isRefusal, type Refusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Section } from '@/ui/text/Sheet';
import type { Enrolment } from '@/usecases/people/ways';

interface PassPhraseFormProps<T> {
  readonly enrolment: Enrolment;
  readonly send: (form: { passPhrase: string; code: string; enrolment: string }) => Promise<T | Refusal>;
  readonly onDone: (done: T) => void;
  readonly done: string;
}

/** A pass phrase, and the first code of the app that makes the codes. */
export function PassPhraseForm<T>({ enrolment, send, onDone, done }: PassPhraseFormProps<T>) {
  const [refused, setRefused] = useState<Refusal | null>(null);
  const sent = async (form: FormData) => {
    const answer = await send({
      passPhrase: textOf(form, 'passPhrase'),
      code: textOf(form, 'code'),
      enrolment: enrolment.sealed,
    });
    if (isRefusal(answer)) setRefused(answer);
    else onDone(answer);
  };
  return (
    <Form aria-label="Pass phrase and codes" refused={refused} onSubmit={sent}>
      <Section>
        <h2>Your pass phrase</h2>
        <Field
          name="passPhrase"
          label="Pass phrase"
          type="password"
          autoComplete="new-password"
          hint="twelve letters or more: several words that do not belong together"
        />
        <p>Point an authenticator app at this picture, or type the secret into it. It shows a code of six figures.</p>
        {/* biome-ignore lint/performance/noImgElement: it is made for this one person, and comes with the answer */}
        <img src={enrolment.picture} width={200} height={200} alt="The secret of the codes, for an authenticator app" />
        <p>
          Secret: <code>{enrolment.secret.replace(/(.{4})(?=.)/g, '$1 ')}</code>
        </p>
        <Field name="code" label="Code that it shows now" inputMode="numeric" autoComplete="one-time-code" />
        <Actions>
          <Button type="submit" data-kind="primary">
            {done}
          </Button>
        </Actions>
      </Section>
    </Form>
  );
}
