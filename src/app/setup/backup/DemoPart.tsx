'use client';
import { useState } from 'react';
import { Button } from '@/ui/controls/Button';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { Section } from '@/ui/text/Sheet';
import type { LedgerChoice } from '@/usecases/ledgers/choice';
import { useOpenLedger } from '../../acts/ledgers/useOpenLedger';

/** The demo beside the office's own ledger: opened, left, thrown away. */
export function DemoPart({ choice: { open, hasDemo } }: { choice: LedgerChoice }) {
  const { doing, open: openIt, discard } = useOpenLedger();
  const [isAsking, setAsking] = useState(false);
  return (
    <Section aria-label="The demo">
      <h2>The demo</h2>
      <p>
        {open === 'demo'
          ? 'The demo is open. Your own ledger lies beside it as you left it, and its reminders and renewals go on.'
          : hasDemo
            ? 'The demo lies beside this ledger as you left it.'
            : 'A made-up ledger of 412 names at five practice registrars, beside this one.'}
      </p>
      <Actions>
        {open === 'demo' ? (
          <Button isDisabled={doing !== null} onPress={() => void openIt('own')}>
            Leave the demo
          </Button>
        ) : (
          <Button isDisabled={doing !== null} onPress={() => void openIt('demo')}>
            {hasDemo ? 'Go back to the demo' : 'Open the demo'}
          </Button>
        )}
        {hasDemo && (
          <Button data-kind="caution" isDisabled={doing !== null} onPress={() => setAsking(true)}>
            Throw the demo away…
          </Button>
        )}
        {doing && <span role="status">{doing}…</span>}
      </Actions>
      <Dialog title="Throw the demo away" isOpen={isAsking} onClose={() => setAsking(false)}>
        <p>All that was tried in it is lost. Opened again, it is made anew. Your own ledger stays as it is.</p>
        <Actions>
          <Button
            data-kind="caution"
            onPress={() => {
              setAsking(false);
              void discard();
            }}
          >
            Throw it away
          </Button>
          <Button onPress={() => setAsking(false)}>Keep it</Button>
        </Actions>
      </Dialog>
    </Section>
  );
}
