'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Section } from '@/ui/text/Sheet';
import { pasteRecordAction } from './actions';

/** A record that was got by hand is read the same way. */
export function PastePart() {
  const router = useRouter();
  const [name, setName] = useState('');
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const paste = async () => {
    const answer = await pasteRecordAction({ name, text });
    setProblem(isRefusal(answer) ? answer.message : null);
    if (isRefusal(answer)) return;
    report({ text: `The record of ${answer} is kept.` });
    setText('');
    router.refresh();
  };
  return (
    <details>
      <summary>Paste a record</summary>
      <Section>
        <Field label="Its name" value={name} onChange={setName} placeholder="kelpkiln.com" />
        <Field
          label="The whole answer, RDAP or WHOIS"
          value={text}
          onChange={setText}
          rows={6}
          mono
          problem={problem}
        />
        <Actions>
          <Button isDisabled={name.trim() === '' || text.trim() === ''} onPress={() => void paste()}>
            Read it
          </Button>
        </Actions>
      </Section>
    </details>
  );
}
