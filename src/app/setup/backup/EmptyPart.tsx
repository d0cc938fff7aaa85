'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { Section } from '@/ui/text/Sheet';
import { namesWords } from '@/ui/text/words';
import { emptyLedgerAction } from '../../acts/ledgers/actions';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';

/** Emptying the ledger: asked for with the number of names that are lost by it. */
export function EmptyPart() {
  const router = useRouter();
  const { meta } = useLedger();
  const [isAsking, setAsking] = useState(false);
  const { save, refused, isBusy } = useSave({ ledger: true });
  const names = meta?.names ?? 0;
  const empty = async (form: FormData) => {
    const emptied = await save(
      emptyLedgerAction({ names: textOf(form, 'names') }),
      (lost) => `The ledger is empty. It held ${namesWords(lost)}.`,
    );
    if (emptied !== null) router.push('/begin');
  };
  return (
    <Section aria-label="Empty it">
      <h2>Empty it</h2>
      <p>
        Takes out everything that belongs to the names: {namesWords(names)}, their money and history, accounts, prices,
        offers and sales. What the office has set, policies and rates stay. It cannot be taken back, but a backup can be
        restored.
      </p>
      <Actions>
        <Button data-kind="caution" onPress={() => setAsking(true)}>
          Empty the ledger…
        </Button>
      </Actions>
      <Dialog title={`Empty the ledger of ${namesWords(names)}`} isOpen={isAsking} onClose={() => setAsking(false)}>
        <Form aria-label="Empty the ledger" refused={refused} onSubmit={empty}>
          <p>
            Save a backup first:{' '}
            <ButtonLink href="/api/v1/backup" prefetch={false} download>
              Save a backup
            </ButtonLink>
          </p>
          <Field name="names" label={`Write ${names}, the number of names that are lost`} inputMode="numeric" />
          <Actions>
            <Button type="submit" data-kind="caution" isDisabled={isBusy}>
              Empty it
            </Button>
            <Button onPress={() => setAsking(false)}>Leave it as it is</Button>
          </Actions>
        </Form>
      </Dialog>
    </Section>
  );
}
