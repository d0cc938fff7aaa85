'use client';
import { useState } from 'react';
import styled from 'styled-components';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { dayWords, namesWords } from '@/ui/text/words';
import { reportDone } from '../../answers';
import { useLedger } from '../../frame/LedgerProvider';
import type { RowView } from '../../frame/ledger.worker';
import { askAutoRenewAction, confirmAutoRenewAction } from '../actions';

interface AutoRenewDialogProps {
  readonly isOpen: boolean;
  readonly onClose: () => void;
  /** Every name it is about; `rows` are the first of them. */
  readonly nameIds: readonly number[];
  readonly rows: readonly RowView[];
  readonly onUndo: (batchId: number) => Promise<void>;
}

const Steps = styled.ol`
  list-style: decimal;
  padding-left: 20px;
  display: flex;
  flex-direction: column;
  gap: 4px;
`;

/** Switching auto-renew by hand: what to do at each registrar, then what was seen there. */
export function AutoRenewDialog({ isOpen, onClose, nameIds, rows, onUndo }: AutoRenewDialogProps) {
  return (
    <Dialog
      title={`Auto-renew of ${rows.length === 1 ? rows[0]?.name.unicode : namesWords(nameIds.length)}`}
      isOpen={isOpen && rows.length > 0}
      onClose={onClose}
    >
      <AutoRenewForm nameIds={nameIds} rows={rows} onClose={onClose} onUndo={onUndo} />
    </Dialog>
  );
}

function AutoRenewForm({ nameIds, rows, onClose, onUndo }: Omit<AutoRenewDialogProps, 'isOpen'>) {
  const { meta, style, reload } = useLedger();
  const first = rows[0];
  const [to, setTo] = useState<'on' | 'off'>(first?.name.asked ?? (first?.setting === 'on' ? 'off' : 'on'));
  const [evidence, setEvidence] = useState('');
  const [busy, setBusy] = useState(false);
  const accounts = [...new Set(rows.map((row) => row.name.accountId))].flatMap(
    (id) => meta?.rules.accounts.find((account) => account.id === id) ?? [],
  );

  const linked = accounts.filter((account) => account.linked);
  const byHand = accounts.filter((account) => !account.linked);

  const run = async (act: () => ReturnType<typeof askAutoRenewAction>) => {
    setBusy(true);
    const answer = await act();
    setBusy(false);
    if (!reportDone(answer, (batchId) => void onUndo(batchId))) return;
    onClose();
    await reload();
  };

  return (
    <>
      {first && rows.length === 1 && (
        <p className="soft">
          The ledger has it as {first.setting}, {first.name.standing}
          {first.name.settingSince ? ` since ${dayWords(first.name.settingSince, style)}` : ''}.
          {first.name.asked ? ` Asked for ${first.name.asked}, not confirmed yet.` : ''}
        </p>
      )}
      <Choice
        label="Switch it"
        value={to}
        onChange={setTo}
        options={[
          { value: 'on', text: 'on' },
          { value: 'off', text: 'off' },
        ]}
      />
      {linked.length > 0 && (
        <p>
          {linked.map((account) => account.label).join(', ')}: the program switches it there itself, for{' '}
          {namesWords(rows.filter((row) => linked.some((account) => account.id === row.name.accountId)).length)}. It
          stays “asked” until the registrar has answered.
        </p>
      )}
      {byHand.length > 0 && (
        <>
          <Steps>
            {byHand.map((account) => (
              <li key={account.id}>
                Log in to {account.registrar || account.label} and switch auto-renew {to} for{' '}
                {namesWords(rows.filter((row) => row.name.accountId === account.id).length)}.
                {to === 'on' &&
                  ` It charges ${account.leadDays === 0 ? 'on the day the term ends' : `${account.leadDays} days before the term ends`}.`}
              </li>
            ))}
            <li>Look at the list there again, then confirm what it shows. Some registrars need up to 72 hours.</li>
          </Steps>
          <Field
            label="What you saw (evidence)"
            value={evidence}
            onChange={setEvidence}
            placeholder="list of names at the registrar, 10:40"
          />
        </>
      )}
      <Actions>
        {linked.length > 0 && (
          <Button
            data-kind="primary"
            isDisabled={busy}
            onPress={() => void run(() => askAutoRenewAction({ nameIds, to }))}
          >
            Switch it {to}
          </Button>
        )}
        {byHand.length > 0 && linked.length === 0 && (
          <>
            <Button
              data-kind="primary"
              isDisabled={busy || evidence.trim() === ''}
              onPress={() =>
                void run(() => confirmAutoRenewAction({ nameIds, setting: to, evidence: evidence.trim() }))
              }
            >
              It is {to} now: confirm
            </Button>
            <Button isDisabled={busy} onPress={() => void run(() => askAutoRenewAction({ nameIds, to }))}>
              Asked, confirm later
            </Button>
          </>
        )}
        <Button onPress={onClose}>Cancel</Button>
      </Actions>
    </>
  );
}
