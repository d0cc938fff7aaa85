'use client';
import { useState } from 'react';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { useSave } from '../acts/useSave';
import { pasteRecordAction } from './actions';

/** A record that was got by hand is read the same way. */
export function PastePart() {
  const { save, refused, isBusy } = useSave();
  const [text, setText] = useState('');
  const paste = async (form: FormData) => {
    const kept = await save(
      pasteRecordAction({ name: textOf(form, 'name'), text }),
      (name) => `The record of ${name} is kept.`,
    );
    if (kept !== null) setText('');
  };
  return (
    <details>
      <summary>Paste a record</summary>
      <Form aria-label="Paste a record" refused={refused} onSubmit={paste}>
        <Field name="name" label="Its name" placeholder="kelpkiln.com" mono />
        <Field name="text" label="The whole answer, RDAP or WHOIS" value={text} onChange={setText} rows={6} mono />
        <Actions>
          <Button type="submit" isDisabled={isBusy}>
            Read it
          </Button>
        </Actions>
      </Form>
    </details>
  );
}
