'use client';
import { useState } from 'react';
import styled from 'styled-components';
import { EVENT_KINDS } from '@/core/journal';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields, Section } from '@/ui/text/Sheet';
import type { MadeWebhook } from '@/usecases/programs/webhooks';
import { useSave } from '../../acts/useSave';
import { addWebhookAction } from './actions';

const Kinds = styled.fieldset`
  border: 0;
  padding: 0;
  margin: 0;
  & > legend { padding: 0 0 6px; }
`;
/** An address is long. */
const Wider = styled(Fields)`
  grid-template-columns: 190px minmax(190px, 460px);
  @media (max-width: 640px) { grid-template-columns: 1fr; }
`;

/** Adds a program that is told of what happens from now on. */
export function NewWebhook({ onMade }: { onMade: (made: MadeWebhook) => void }) {
  const { save, refused, isBusy } = useSave();
  const [kinds, setKinds] = useState<readonly string[]>([]);
  const [times, setTimes] = useState(0);
  const add = async (form: FormData) => {
    const added = await save(
      addWebhookAction({ label: textOf(form, 'label'), url: textOf(form, 'url'), kinds }),
      (made) => `${made.webhook.label} is told from now on.`,
    );
    if (added === null) return;
    setKinds([]);
    setTimes(times + 1);
    onMade(added);
  };
  const choose = (kind: string, on: boolean) =>
    setKinds(on ? [...kinds, kind] : kinds.filter((other) => other !== kind));
  return (
    <Form key={times} aria-label="Tell a program" refused={refused} onSubmit={(form) => void add(form)}>
      <Section>
        <h2>Tell a program</h2>
        <Wider>
          <Field name="label" label="What it is for" defaultValue="" hint="like bookkeeping" />
          <Field name="url" label="Address" mono defaultValue="" hint="https; http on this machine alone" />
        </Wider>
        <Kinds>
          <legend className="soft">Of what; of everything where none is chosen</legend>
          <Actions>
            {EVENT_KINDS.map((kind) => (
              <Check key={kind} isSelected={kinds.includes(kind)} onChange={(on) => choose(kind, on)}>
                {kind}
              </Check>
            ))}
          </Actions>
        </Kinds>
        <p className="soft">
          Each event is sent as JSON, signed by the Standard Webhooks rules, until it is taken: again after 5 seconds,
          then less and less often, every five minutes at the least. Sent again it has the same webhook-id.
        </p>
        <Actions>
          <Button type="submit" data-kind="primary" isDisabled={isBusy}>
            Tell it from now on
          </Button>
        </Actions>
      </Section>
    </Form>
  );
}
