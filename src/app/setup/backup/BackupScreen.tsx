'use client';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { Notice, Page, Section } from '@/ui/text/Sheet';
import { namesWords } from '@/ui/text/words';
import type { LedgerChoice } from '@/usecases/ledgers/choice';
import { useLedger } from '../../frame/LedgerProvider';
import { useTitle } from '../../frame/PageTitle';
import { DemoPart } from './DemoPart';
import { EmptyPart } from './EmptyPart';

/** Saving the whole ledger as one file, restoring it, emptying it, and the demo beside it. */
export function BackupScreen({ choice }: { choice: LedgerChoice }) {
  useTitle('Ledger', 'back up, restore, empty, the demo');
  const { reload } = useLedger();
  const [told, setTold] = useState<{ text: string; problem: boolean } | null>(null);
  const [busy, setBusy] = useState(false);

  const restore = async (files: FileList | null) => {
    const file = files?.[0];
    if (!file) return;
    setBusy(true);
    const response = await fetch('/api/v1/backup', {
      method: 'POST',
      body: file,
      headers: { 'content-type': 'application/json' },
    }).catch(() => null);
    const body = (await response?.json().catch(() => null)) as { names?: number; detail?: string } | null;
    setBusy(false);
    if (response?.ok) {
      setTold({ text: `Restored ${namesWords(body?.names ?? 0)}.`, problem: false });
      await reload();
    } else
      setTold({
        text: body?.detail ?? 'The file could not be sent. Is the program still running?',
        problem: true,
      });
  };

  return (
    <Page>
      <Section>
        <h2>Back up</h2>
        <p>One JSON file with everything: names, money, history, accounts, prices, policies, views.</p>
        <Actions>
          <ButtonLink href="/api/v1/backup" prefetch={false} download data-kind="primary">
            Save a backup
          </ButtonLink>
        </Actions>
      </Section>
      <Section>
        <h2>Restore</h2>
        <p>A backup of up to 2 GB goes into an empty ledger, and brings it to the state it was saved in.</p>
        <p className="soft">
          Not in a backup: the key that seals passwords, transfer codes, and the links of mails and calendars. Under
          another key the logins of registrars and marketplaces are typed again.
        </p>
        <Actions>
          <FileTrigger acceptedFileTypes={['.json', 'application/json']} onSelect={(files) => void restore(files)}>
            <Button isDisabled={busy}>{busy ? 'Restoring…' : 'Restore from a file…'}</Button>
          </FileTrigger>
        </Actions>
        {told && (
          <Notice role="status" data-kind={told.problem ? 'caution' : undefined}>
            {told.text}
          </Notice>
        )}
      </Section>
      <EmptyPart />
      {choice.mayChange && <DemoPart choice={choice} />}
    </Page>
  );
}
