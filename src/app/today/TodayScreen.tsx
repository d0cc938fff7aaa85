'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useState } from 'react';
import styled from 'styled-components';
import type { TodayGroup } from '@/core/ledger';
import { isRefusal } from '@/core/refusal';
import { daysBetween } from '@/core/time';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Page, Ruled, Section, Wide } from '@/ui/text/Sheet';
import { Empty, Failed, Loading } from '@/ui/text/States';
import { amountsWords, causeWords, daysWords, dayWords, namesWords, outlookWords, stepFigures } from '@/ui/text/words';
import type { MessageRow } from '@/usecases/links/messages';
import { reportDone } from '../answers';
import { useTitle } from '../frame/Frame';
import { useLedger } from '../frame/LedgerProvider';
import type { RowView, TodayView } from '../frame/ledger.worker';
import { planRenewalAction, undoAction } from '../ledger/actions';
import { AutoRenewDialog } from '../ledger/dialogs/AutoRenewDialog';
import { seenNamesAction } from './actions';

const GROUP_WORDS: Readonly<Record<TodayGroup, string>> = {
  'charge will fail': 'The charge will fail',
  'past its term': 'Past the term',
  lapses: 'Lapse within 60 days',
  'will be charged': 'Will be charged within 30 days',
};
const MOST_ROWS = 30;

const Line = styled.p`font-size: 1.05rem; max-width: 80ch;`;

/** What needs a decision today, by consequence, and what it costs to wait. */
export function TodayScreen({ messages, unseen }: { messages: readonly MessageRow[]; unseen: readonly number[] }) {
  const router = useRouter();
  const { worker, meta, problem, style, today, homeCurrency, reload } = useLedger();
  const [view, setView] = useState<TodayView | null>(null);
  const [switching, setSwitching] = useState<readonly RowView[]>([]);
  const [open, setOpen] = useState(new Set(unseen));
  useTitle('Today', dayWords(today, style));

  useEffect(() => {
    if (!worker || !meta) return;
    let stale = false;
    void worker.today(MOST_ROWS).then((found) => !stale && setView(found));
    return () => {
      stale = true;
    };
  }, [worker, meta]);

  const renew = useCallback(
    async (rows: readonly RowView[]) => {
      const answer = await planRenewalAction(
        rows.map((row) => ({ nameId: row.name.id, years: row.policy.terms.renew.least })),
      );
      if (isRefusal(answer)) report({ text: answer.message, problem: true });
      else router.push(`/renewals/${answer}`);
    },
    [router],
  );
  const undo = async (batchId: number) => {
    if (reportDone(await undoAction(batchId), null)) await reload();
  };
  const seen = async (ids: readonly number[]) => {
    await seenNamesAction(ids);
    setOpen((now) => new Set([...now].filter((id) => !ids.includes(id))));
  };

  if (problem) return <Failed text={problem} onRetry={() => void reload()} />;
  if (view === null || meta === null) return <Loading text="Looking through the ledger" />;
  const { summary, groups } = view;
  const decisions = groups.filter(({ group }) => group !== 'will be charged');
  const nothing = decisions.every(({ total }) => total === 0) && messages.length === 0;
  return (
    <Page>
      <Section>
        <Line>
          If nothing is done in the next 30 days:{' '}
          {summary.charges === 0
            ? 'nothing is charged'
            : `${amountsWords(summary.charged)} is charged in ${summary.charges} ${summary.charges === 1 ? 'charge' : 'charges'}`}
          ,{' '}
          {summary.lapses === 0
            ? 'no name lapses'
            : `${namesWords(summary.lapses)} ${summary.lapses === 1 ? 'lapses' : 'lapse'}`}
          ,{' '}
          {summary.lost === 0
            ? 'none is lost'
            : `${namesWords(summary.lost)} ${summary.lost === 1 ? 'is' : 'are'} lost for good`}
          .
        </Line>
      </Section>
      {nothing && (
        <Empty
          title={meta.names === 0 ? 'The ledger is empty.' : 'Nothing needs a decision.'}
          text={
            meta.names === 0
              ? 'Paste the names you own, or bring in a list from each registrar.'
              : 'Every name is paid for, or will be. Come back when you like: what changes is told here.'
          }
        >
          <ButtonLink href={meta.names === 0 ? '/ledger/add' : '/ledger'} data-kind="primary">
            {meta.names === 0 ? 'Add names' : 'To the ledger'}
          </ButtonLink>
        </Empty>
      )}
      {groups.map(({ group, total, rows }) =>
        total === 0 ? null : (
          <Section key={group} aria-label={GROUP_WORDS[group]}>
            <Actions>
              <h2>
                {GROUP_WORDS[group]}: {namesWords(total)}
              </h2>
              {group === 'charge will fail' && <ButtonLink href="/renewals">See the funding</ButtonLink>}
              {group === 'lapses' && (
                <Button onPress={() => void renew(rows)}>
                  Renew {total > rows.length ? `the first ${rows.length}` : 'them'}…
                </Button>
              )}
            </Actions>
            <Wide>
              <Ruled aria-label={GROUP_WORDS[group]}>
                <thead>
                  <tr>
                    <th>Name</th>
                    <th>Account</th>
                    <th>If nothing is done</th>
                    <th className="figure">days</th>
                    <th className="figure">now → then</th>
                    <th>
                      <span className="visually-hidden">Act</span>
                    </th>
                  </tr>
                </thead>
                <tbody>
                  {rows.map((row) => (
                    <tr key={row.name.id}>
                      <td>
                        <Link href={`/ledger/${encodeURIComponent(row.name.ascii)}`} className="name">
                          {row.name.unicode}
                        </Link>
                        {row.name.neverLost && <span className="soft"> never to be lost</span>}
                      </td>
                      <td>{meta.rules.accounts.find((account) => account.id === row.name.accountId)?.label}</td>
                      <td>
                        {outlookWords(row.outlook, style)}
                        {row.outlook.kind === 'charge fails' && row.outlook.charge.cause && (
                          <span className="soft">, {causeWords(row.outlook.charge.cause)}</span>
                        )}
                        {row.setting === 'stalled' && <span className="caution"> stalled: the last charge failed</span>}
                      </td>
                      <td className="figure">{row.step ? daysWords(daysBetween(today, row.step.at)) : ''}</td>
                      <td className="figure">{stepFigures(row.step, homeCurrency)}</td>
                      <td className="figure">
                        <RowActs
                          row={row}
                          isOpen={open.has(row.name.id)}
                          onRenew={() => void renew([row])}
                          onSwitch={() => setSwitching([row])}
                          onSeen={() => void seen([row.name.id])}
                        />
                      </td>
                    </tr>
                  ))}
                </tbody>
              </Ruled>
            </Wide>
            {total > rows.length && (
              <p className="soft">
                The first {rows.length} of {total}.
              </p>
            )}
          </Section>
        ),
      )}
      {messages.length > 0 && (
        <Section aria-label="Arrived since yesterday">
          <h2>Arrived since yesterday</h2>
          <Ruled aria-label="Arrived since yesterday">
            <tbody>
              {messages.map((message) => (
                <tr key={`${message.accountId} ${message.toldAt} ${message.name} ${message.kind}`}>
                  <td>{dayWords(message.toldAt ?? message.receivedAt, style)}</td>
                  <td>{meta.rules.accounts.find((account) => account.id === message.accountId)?.label}</td>
                  <td className="name">{message.name}</td>
                  <td
                    className={message.kind === 'charge-failed' || message.kind === 'deleted' ? 'caution' : undefined}
                  >
                    {message.text}
                  </td>
                </tr>
              ))}
            </tbody>
          </Ruled>
        </Section>
      )}
      <AutoRenewDialog
        isOpen={switching.length > 0}
        onClose={() => setSwitching([])}
        nameIds={switching.map((row) => row.name.id)}
        rows={switching}
        onUndo={undo}
      />
    </Page>
  );
}

/** The acts that mend a row, right beside it. */
function RowActs({
  row,
  isOpen,
  onRenew,
  onSwitch,
  onSeen,
}: {
  row: RowView;
  isOpen: boolean;
  onRenew: () => void;
  onSwitch: () => void;
  onSeen: () => void;
}) {
  const renewable = row.phase === 'term' || row.phase === 'refundable' || row.phase === 'late';
  return (
    <>
      {renewable && row.outlook.kind !== 'charged' && (
        <Button data-kind="plain" onPress={onRenew} aria-label={`Renew ${row.name.unicode}`}>
          Renew…
        </Button>
      )}
      {row.phase === 'term' && (
        <Button data-kind="plain" onPress={onSwitch} aria-label={`Auto-renew of ${row.name.unicode}`}>
          Auto-renew…
        </Button>
      )}
      {isOpen && (
        <Button data-kind="plain" onPress={onSeen} aria-label={`Seen: ${row.name.unicode}`}>
          Seen
        </Button>
      )}
    </>
  );
}
