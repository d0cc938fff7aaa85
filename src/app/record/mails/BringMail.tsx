'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { useSave } from '../../acts/useSave';
import { bringMails, takenWords } from '../../frame/MailDrop';
import { pasteMailAction } from '../actions';

/** A mail is brought as a file, or its text is pasted. */
export function BringMail() {
  const router = useRouter();
  const { save, refused, isBusy } = useSave();
  const [text, setText] = useState('');
  const paste = async () => {
    const taken = await save(pasteMailAction(text), takenWords);
    if (taken !== null) setText('');
  };
  return (
    <Form aria-label="Bring a mail" refused={refused} onSubmit={() => void paste()}>
      <Field
        name="text"
        label="Paste a mail"
        rows={5}
        value={text}
        onChange={setText}
        hint="its text, with its headers where you have them"
      />
      <Actions>
        <Button type="submit" isDisabled={isBusy}>
          Read it
        </Button>
        <FileTrigger
          acceptedFileTypes={['.eml', '.mbox', 'message/rfc822', 'application/mbox']}
          allowsMultiple
          onSelect={(files) => files && void bringMails([...files]).then(() => router.refresh())}
        >
          <Button>Choose files (.eml, .mbox)</Button>
        </FileTrigger>
      </Actions>
    </Form>
  );
}
