'use client';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import type { TodayGroup, TodaySummary } from '@/core/ledger';
import type { AgendaItem } from '@/core/selling';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { Page, Ruled, Section } from '@/ui/text/Sheet';
import { Empty, Failed, Loading } from '@/ui/text/States';
import { amountsWords, dayWords, namesWords } from '@/ui/text/words';
import type { MessageRow } from '@/usecases/links/messages';
import type { WatchRow } from '@/usecases/records/watch';
import type { OtherKey } from '@/usecases/secrets/keys';
import { useRenew } from '../acts/renew/useRenew';
import { SwitchDialog } from '../acts/switch/SwitchDialog';
import { useAct } from '../acts/useAct';
import { useTitle } from '../frame/Frame';
import { useLedger } from '../frame/LedgerProvider';
import type { RowView, TodayView } from '../frame/views';
import { mailConfirmedAction, seenNamesAction } from './actions';
import { OtherKeyNotice } from './OtherKeyNotice';
import { SellingPart } from './SellingPart';
import { TodayTable } from './TodayTable';

const GROUP_WORDS: Readonly<Record<TodayGroup, string>> = {
  'charge will fail': 'The charge will fail',
  'past its term': 'Past the term',
  'mail to confirm': 'The holder’s mail has to be confirmed',
  lapses: 'Lapse within 60 days',
  'will be charged': 'Will be charged within 30 days',
};
const MOST_ROWS = 30;

const Line = styled.p`font-size: 1.05rem; max-width: 80ch;`;

/** What needs a decision today, by consequence, and what it costs to wait. */
export function TodayScreen({
  messages,
  unseen,
  watched,
  selling,
  otherKey,
}: {
  messages: readonly MessageRow[];
  unseen: readonly number[];
  /** Watched names that are free, come free soon, or changed since yesterday. */
  watched: readonly WatchRow[];
  /** What awaits the owner in selling. */
  selling: { readonly total: number; readonly items: readonly AgendaItem[] };
  /** Logins that another key has sealed: their links stand still. */
  otherKey: readonly OtherKey[];
}) {
  const plan = useRenew();
  const { act } = useAct();
  const { worker, meta, problem, style, today, reload } = useLedger();
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

  const renew = (rows: readonly RowView[]) =>
    plan(rows.map((row) => ({ nameId: row.name.id, years: row.policy.terms.renew.least })));
  const seen = async (ids: readonly number[]) => {
    await seenNamesAction(ids);
    setOpen((now) => new Set([...now].filter((id) => !ids.includes(id))));
  };

  const mailConfirmed = async (row: RowView) => {
    await act(() => mailConfirmedAction(row.name.id));
  };

  if (problem) return <Failed text={problem} onRetry={() => void reload()} />;
  if (view === null || meta === null) return <Loading text="Looking through the ledger" />;
  const { summary, groups } = view;
  const decisions = groups.filter(({ group }) => group !== 'will be charged');
  const nothing =
    decisions.every(({ total }) => total === 0) && messages.length === 0 && watched.length === 0 && selling.total === 0;
  return (
    <Page>
      <SummaryPart summary={summary} />
      {otherKey.length > 0 && <OtherKeyNotice places={otherKey} />}
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
              {group === 'past its term' && <ButtonLink href="/rescue">To Rescue</ButtonLink>}
              {group === 'charge will fail' && <ButtonLink href="/renewals">See the funding</ButtonLink>}
              {group === 'lapses' && (
                <Button onPress={() => void renew(rows)}>
                  Renew {total > rows.length ? `the first ${rows.length}` : 'them'}…
                </Button>
              )}
            </Actions>
            <TodayTable
              group={group}
              label={GROUP_WORDS[group]}
              rows={rows}
              isOpen={(row) => open.has(row.name.id)}
              onRenew={(row) => void renew([row])}
              onRestore={(row) => void plan([{ nameId: row.name.id, years: 1 }], 'restore')}
              onSwitch={(row) => setSwitching([row])}
              onSeen={(row) => void seen([row.name.id])}
              onMailConfirmed={(row) => void mailConfirmed(row)}
            />
            {total > rows.length && (
              <p className="soft">
                The first {rows.length} of {total}.
              </p>
            )}
          </Section>
        ),
      )}
      {selling.total > 0 && <SellingPart selling={selling} />}
      {watched.length > 0 && (
        <Section aria-label="Watched names">
          <h2>Watched names</h2>
          <Ruled aria-label="Watched names">
            <tbody>
              {watched.map((watch) => (
                <tr key={watch.ascii}>
                  <td>
                    <Link href={`/record/${encodeURIComponent(watch.ascii)}`} className="name">
                      {watch.unicode}
                    </Link>
                  </td>
                  <td>
                    {watch.isFree
                      ? 'available now'
                      : watch.earliest && watch.latest
                        ? `becomes available ${dayWords(watch.earliest, style)} to ${dayWords(watch.latest, style)}`
                        : watch.standing}
                  </td>
                  <td className="soft">{watch.changedAt && `${dayWords(watch.changedAt, style)}: ${watch.change}`}</td>
                </tr>
              ))}
            </tbody>
          </Ruled>
        </Section>
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
      <SwitchDialog
        what="auto-renew"
        isOpen={switching.length > 0}
        onClose={() => setSwitching([])}
        nameIds={switching.map((row) => row.name.id)}
        rows={switching}
      />
    </Page>
  );
}

/** What is charged, and how many charges of it nobody can price. */
function chargedWords({ charged, charges, unpriced }: TodaySummary): string {
  const some = (count: number) => (count === 1 ? '1 charge' : `${count} charges`);
  const priced = charges - unpriced;
  const unknown = unpriced === 0 ? '' : `${some(unpriced)} at a price not known`;
  if (charges === 0) return 'nothing is charged';
  if (priced === 0) return unknown;
  return `${amountsWords(charged)} is charged in ${some(priced)}${unknown && `, besides ${unknown}`}`;
}

/** What the next thirty days bring if nothing is done, in a sentence. */
function SummaryPart({ summary }: { summary: TodayView['summary'] }) {
  return (
    <Section>
      <Line>
        If nothing is done in the next 30 days: {chargedWords(summary)},{' '}
        {summary.lapses === 0
          ? 'no name lapses'
          : `${namesWords(summary.lapses)} ${summary.lapses === 1 ? 'lapses' : 'lapse'}`}
        ,{' '}
        {summary.lost === 0
          ? 'none is lost'
          : `${namesWords(summary.lost)} ${summary.lost === 1 ? 'is' : 'are'} lost for good`}
        .
      </Line>
      {summary.dateless > 0 && (
        <p className="caution">
          Of {namesWords(summary.dateless)} nobody has said when the term ends: nothing is told of{' '}
          {summary.dateless === 1 ? 'it' : 'them'}. <Link href="/ledger?end=unknown">Choose and set the ends</Link>
        </p>
      )}
    </Section>
  );
}
