'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import type { Instant } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields, Notice, Page, Section } from '@/ui/text/Sheet';
import { dayWords, namesWords } from '@/ui/text/words';
import { LARGEST_FILE } from '@/usecases/limits';
import { useTitle } from '../../frame/Frame';
import { useLedger } from '../../frame/LedgerProvider';

interface AddScreenProps {
  readonly accounts: readonly { readonly id: number; readonly label: string }[];
  readonly open: readonly { readonly id: string; readonly source: string; readonly rows: number }[];
  readonly written: readonly {
    readonly id: string;
    readonly source: string;
    readonly madeAt: Instant;
    readonly undone: boolean;
  }[];
}

const LARGEST_FILE_MB = LARGEST_FILE / 1024 / 1024;
const FROM_LIST = 'from the list';
const NEW = 'new';

/** Where names come in: pasted, or from a file of any registrar. Nothing is written before the preview. */
export function AddScreen({ accounts, open, written }: AddScreenProps) {
  useTitle('Add names', 'by pasting, or from a file');
  const router = useRouter();
  const [text, setText] = useState('');
  const [account, setAccount] = useState<string>(FROM_LIST);
  const [label, setLabel] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);

  const send = async (content: Blob, source: string) => {
    if (content.size > LARGEST_FILE) {
      setProblem(`This list is larger than ${LARGEST_FILE_MB} MB. Split it, and bring the parts one after the other.`);
      return;
    }
    setBusy(true);
    setProblem(null);
    const query = new URLSearchParams({ source });
    if (account === NEW) query.set('accountLabel', label);
    else if (account !== FROM_LIST) query.set('accountId', account);
    const response = await fetch(`/ledger/add/begin?${query}`, { method: 'POST', body: content }).catch(() => null);
    const answer = (await response?.json().catch(() => null)) as { id?: string; message?: string } | null;
    setBusy(false);
    if (answer?.id) router.push(`/ledger/add/${answer.id}`);
    else setProblem(answer?.message ?? 'The list could not be sent. Is the program still running? Then try again.');
  };

  return (
    <Page>
      <Section>
        <Fields>
          <Choice
            label="Account of names that say none"
            value={account}
            onChange={setAccount}
            options={[
              { value: FROM_LIST, text: 'As the list says' },
              ...accounts.map((a) => ({ value: String(a.id), text: a.label })),
              { value: NEW, text: 'A new account…' },
            ]}
          />
          {account === NEW && (
            <Field label="Its label" value={label} onChange={setLabel} placeholder="registrar or label" autoFocus />
          )}
        </Fields>
        <Field
          label="Names"
          rows={12}
          mono
          value={text}
          onChange={setText}
          problem={problem}
          placeholder={'seaholly.com\nbrackenquay.net 2027-09-21\nhttps://www.tarbarrel.org/'}
          hint="Separated by anything; a date behind a name is the end of its term. Whole tables with headings can be pasted too."
        />
        <Actions>
          <Button
            data-kind="primary"
            isDisabled={busy || text.trim() === '' || (account === NEW && label.trim() === '')}
            onPress={() => void send(new Blob([text]), 'pasted')}
          >
            See what would be added
          </Button>
          <FileTrigger
            acceptedFileTypes={['.csv', '.tsv', '.txt', '.xlsx', 'text/csv', 'text/plain']}
            onSelect={(files) => {
              const file = files?.[0];
              if (file) void send(file, file.name);
            }}
          >
            <Button isDisabled={busy}>Choose a file…</Button>
          </FileTrigger>
          <span className="soft">text, CSV or a workbook (.xlsx), up to {LARGEST_FILE_MB} MB and a million rows</span>
          {busy && <span role="status">Sending the list…</span>}
        </Actions>
      </Section>
      <EarlierLists open={open} written={written} />
    </Page>
  );
}

/** Lists that were begun, and those that were written in the last week. */
function EarlierLists({ open, written }: Pick<AddScreenProps, 'open' | 'written'>) {
  const { style } = useLedger();
  return (
    <>
      {open.length > 0 && (
        <Notice>
          <p>Begun and not written yet:</p>
          <ul>
            {open.map((item) => (
              <li key={item.id}>
                <Link href={`/ledger/add/${item.id}`}>
                  {item.source}, {namesWords(item.rows)}
                </Link>
              </li>
            ))}
          </ul>
        </Notice>
      )}
      {written.length > 0 && (
        <Section>
          <h2>Written in the last week</h2>
          <ul>
            {written.map((item) => (
              <li key={item.id}>
                <Link href={`/ledger/add/${item.id}`}>
                  {item.source}, {dayWords(item.madeAt, style)}
                </Link>
                {item.undone && <span className="soft"> taken back</span>}
              </li>
            ))}
          </ul>
        </Section>
      )}
    </>
  );
}
