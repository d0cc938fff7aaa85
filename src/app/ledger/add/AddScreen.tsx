'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import type { Instant } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields, Notice, Page, Section } from '@/ui/text/Sheet';
import { dayWords, namesWords } from '@/ui/text/words';
import { LARGEST_FILE } from '@/usecases/limits';
import { useLedger } from '../../frame/LedgerProvider';
import { useTitle } from '../../frame/PageTitle';

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
  const [text, setText] = useState('');
  const [account, setAccount] = useState<string>(FROM_LIST);
  const [label, setLabel] = useState('');

  const { send, problem, isBusy } = useSendList(account, label);

  return (
    <Page>
      <Section>
        <Fields>
          <Choice
            label="Account, where the list names none"
            value={account}
            onChange={setAccount}
            options={[
              { value: FROM_LIST, text: 'As the list says' },
              ...accounts.map((a) => ({ value: String(a.id), text: a.label })),
              { value: NEW, text: 'A new account…' },
            ]}
          />
          {account === NEW && (
            <Field
              label="Label of the new account"
              value={label}
              onChange={setLabel}
              placeholder="registrar or label"
              autoFocus
            />
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
          <Button data-kind="primary" isDisabled={isBusy} onPress={() => void send(new Blob([text.trim()]), 'pasted')}>
            See what would be added
          </Button>
          <FileTrigger
            acceptedFileTypes={['.csv', '.tsv', '.txt', '.xlsx', 'text/csv', 'text/plain']}
            onSelect={(files) => {
              const file = files?.[0];
              if (file) void send(file, file.name);
            }}
          >
            <Button isDisabled={isBusy}>Choose a file…</Button>
          </FileTrigger>
          <span className="soft">text, CSV or a workbook (.xlsx), up to {LARGEST_FILE_MB} MB and a million rows</span>
          {isBusy && <span role="status">Sending the list…</span>}
        </Actions>
      </Section>
      <EarlierLists open={open} written={written} />
    </Page>
  );
}

/** What keeps a list from being sent; `null` when nothing does. */
function whyNot(octets: number, lacksLabel: boolean): string | null {
  if (octets === 0) return 'Paste at least one name, or choose a file.';
  if (octets > LARGEST_FILE)
    return `This list is larger than ${LARGEST_FILE_MB} MB. Split it, and bring the parts one after the other.`;
  return lacksLabel ? 'Give the new account a label first.' : null;
}

/** Sends a list to be previewed, for an account or for those that it names itself. */
function useSendList(account: string, label: string) {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const send = async (content: Blob, source: string) => {
    const stops = whyNot(content.size, account === NEW && label.trim() === '');
    setProblem(stops);
    if (stops !== null) return;
    setBusy(true);
    const query = new URLSearchParams({ source });
    if (account === NEW) query.set('accountLabel', label);
    else if (account !== FROM_LIST) query.set('accountId', account);
    const response = await fetch(`/ledger/add/begin?${query}`, { method: 'POST', body: content }).catch(() => null);
    const answer = (await response?.json().catch(() => null)) as { id?: string; message?: string } | null;
    setBusy(false);
    if (answer?.id) router.push(`/ledger/add/${answer.id}`);
    else setProblem(answer?.message ?? 'The list could not be sent. Is the program still running? Then try again.');
  };

  return { send, problem, isBusy };
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
