'use client';
import { useState } from 'react';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Section } from '@/ui/text/Sheet';
import type { ListedName } from '@/usecases/records/list';
import { useBusy } from '../acts/useBusy';
import { lookUpListAction } from './actions';
import { ListedNames } from './ListedNames';

/** Looking up a list of names: the free ones by what they cost. */
export function ListPart() {
  const [text, setText] = useState('');
  const [found, setFound] = useState<readonly ListedName[]>([]);
  const [busy, during] = useBusy();
  const lookUp = async () => {
    const answer = await during(lookUpListAction(text));
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else setFound(answer);
  };
  return (
    <details>
      <summary>Look up a list of names</summary>
      <Section>
        <Field label="Names" value={text} onChange={setText} rows={4} mono />
        <Actions>
          <Button isDisabled={busy || text.trim() === ''} onPress={() => void lookUp()}>
            {busy ? 'Asking the registries…' : 'Look them up'}
          </Button>
        </Actions>
        {found.length > 0 && <ListedNames names={found} />}
      </Section>
    </details>
  );
}
