'use client';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Section } from '@/ui/text/Sheet';
import type { PracticeState } from '@/usecases/practice/practice';
import { useSave } from '../../acts/useSave';
import { askForNameAction } from './actions';

/** Somebody else asks for a name, as with a code that got out: what follows is seen in Today. */
export function AskForNamePart({ onState }: { onState: (state: PracticeState) => void }) {
  const { save, refused, isBusy } = useSave({ ledger: true });
  const ask = async (form: FormData) => {
    const state = await save(askForNameAction(textOf(form, 'name')), 'Somebody has asked for it. Look at Today.');
    if (state) onState(state);
  };
  return (
    <Section>
      <h2>Somebody asks for one of your names</h2>
      <Form aria-label="A transfer that you did not ask for" refused={refused} onSubmit={ask}>
        <Field name="name" label="Name, with its lock off" />
        <Actions>
          <Button type="submit" isDisabled={isBusy}>
            Ask for its transfer
          </Button>
        </Actions>
      </Form>
    </Section>
  );
}
