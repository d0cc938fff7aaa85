'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Section } from '@/ui/text/Sheet';
import { namesWords } from '@/ui/text/words';
import { pastedNamesAction } from './actions';

/** Names to be listed, from a pasted list. */
export function PastePart() {
  const router = useRouter();
  const [text, setText] = useState('');
  const [unknown, setUnknown] = useState<readonly string[]>([]);
  const [found, setFound] = useState<readonly number[]>([]);
  const price = (ids: readonly number[]) => router.push(`/selling/price?names=${ids.join(',')}`);
  const look = async () => {
    const answer = await pastedNamesAction(text);
    if (isRefusal(answer)) {
      report({ text: answer.message, problem: true });
      return;
    }
    setUnknown(answer.unknown);
    setFound(answer.nameIds);
    if (answer.unknown.length === 0) price(answer.nameIds);
  };
  return (
    <details>
      <summary>List names from a pasted list</summary>
      <Section>
        <Field label="Names to list" value={text} onChange={setText} rows={4} mono />
        {unknown.length > 0 && (
          <p className="caution" role="status">
            Not in your ledger: {unknown.slice(0, 12).join(', ')}
            {unknown.length > 12 && ` and ${unknown.length - 12} more`}.
          </p>
        )}
        <Actions>
          <Button isDisabled={text.trim() === ''} onPress={() => void look()}>
            Price them
          </Button>
          {unknown.length > 0 && found.length > 0 && (
            <Button onPress={() => price(found)}>Go on with {namesWords(found.length)}</Button>
          )}
        </Actions>
      </Section>
    </details>
  );
}
