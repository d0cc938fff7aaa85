'use client';
import { useState } from 'react';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { Section } from '@/ui/text/Sheet';
import { transferCodeAction } from '../../actions';

/** The code of a transfer, shown when somebody asks for it: whoever has it can take the name. */
export function TransferCode({ saleId }: { saleId: number }) {
  const [shown, setShown] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const show = async () => {
    const answer = await transferCodeAction(saleId);
    setProblem(isRefusal(answer) ? answer.message : null);
    setShown(isRefusal(answer) ? null : answer);
  };
  return (
    <Section aria-label="The buyer’s transfer code">
      <h2>The buyer’s transfer code</h2>
      <p className="soft">
        Whoever has it can take the name. It is kept sealed, and destroyed when the transfer is over.
      </p>
      {problem && (
        <p className="caution" role="alert">
          {problem}
        </p>
      )}
      <Actions>
        {shown === null ? (
          <Button onPress={() => void show()}>Show the code</Button>
        ) : (
          <>
            <code className="name">{shown}</code>
            <Button onPress={() => setShown(null)}>Hide it</Button>
          </>
        )}
      </Actions>
    </Section>
  );
}
