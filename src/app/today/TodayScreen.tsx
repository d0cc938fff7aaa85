'use client';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import type { TodaySummary } from '@/core/ledger';
import type { AgendaItem } from '@/core/selling';
import { ButtonLink } from '@/ui/controls/Button';
import { Page, Section } from '@/ui/text/Sheet';
import { Empty, Failed, Loading } from '@/ui/text/States';
import { amountsWords, dayWords, namesWords } from '@/ui/text/words';
import type { AcquiringItem } from '@/usecases/acquiring/today';
import type { MessageRow } from '@/usecases/links/messages';
import type { ForeignTransfer } from '@/usecases/moving/foreign';
import type { TransferView } from '@/usecases/moving/underWay';
import type { WatchRow } from '@/usecases/records/watch';
import type { OtherKey } from '@/usecases/secrets/keys';
import { SwitchDialog } from '../acts/switch/SwitchDialog';
import { useTitle } from '../frame/Frame';
import { useLedger } from '../frame/LedgerProvider';
import type { RowView, TodayView } from '../frame/views';
import { AcquiringPart } from './AcquiringPart';
import { AlarmPart } from './AlarmPart';
import { MessagesPart, WatchedPart } from './ArrivedParts';
import { seenNamesAction } from './actions';
import { GroupPart } from './GroupPart';
import { OtherKeyNotice } from './OtherKeyNotice';
import { SellingPart } from './SellingPart';
import { TransfersPart } from './TransfersPart';

const MOST_ROWS = 30;

const Line = styled.p`font-size: 1.05rem; max-width: 80ch;`;

interface TodayScreenProps {
  readonly messages: readonly MessageRow[];
  readonly unseen: readonly number[];
  /** Watched names that are available, become so soon, or changed since yesterday. */
  readonly watched: readonly WatchRow[];
  /** What awaits the owner in selling. */
  readonly selling: { readonly total: number; readonly items: readonly AgendaItem[] };
  /** Logins that another key has sealed: their links stand still. */
  readonly otherKey: readonly OtherKey[];
  /** Transfers that nobody here asked for. */
  readonly alarms: readonly ForeignTransfer[];
  /** Transfers of our own that wait for the person, or have waited longer than usual. */
  readonly transfers: readonly TransferView[];
  readonly acquiring: readonly AcquiringItem[];
}

/** What needs a decision today, by consequence, and what it costs to wait. */
export function TodayScreen(props: TodayScreenProps) {
  const { messages, unseen, watched, selling, otherKey, alarms, transfers, acquiring } = props;
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

  const seen = async (ids: readonly number[]) => {
    await seenNamesAction(ids);
    setOpen((now) => new Set([...now].filter((id) => !ids.includes(id))));
  };

  if (problem) return <Failed text={problem} onRetry={() => void reload()} />;
  if (view === null || meta === null) return <Loading text="Looking through the ledger" />;
  const { summary, groups } = view;
  const decisions = groups.filter(({ group }) => group !== 'will be charged');
  const nothing =
    decisions.every(({ total }) => total === 0) &&
    [messages, watched, alarms, transfers, acquiring].every(({ length }) => length === 0) &&
    selling.total === 0;
  return (
    <Page>
      <AlarmPart alarms={alarms} />
      <SummaryPart summary={summary} />
      {otherKey.length > 0 && <OtherKeyNotice places={otherKey} />}
      {nothing && <NothingToday isEmpty={meta.names === 0} />}
      {groups.map(({ group, total, rows }) =>
        total === 0 ? null : (
          <GroupPart
            key={group}
            group={{ group, total, rows }}
            isOpen={(row) => open.has(row.name.id)}
            onSwitch={(row) => setSwitching([row])}
            onSeen={(row) => void seen([row.name.id])}
          />
        ),
      )}
      {transfers.length > 0 && <TransfersPart transfers={transfers} />}
      {acquiring.length > 0 && <AcquiringPart items={acquiring} />}
      {selling.total > 0 && <SellingPart selling={selling} />}
      <WatchedPart watched={watched} />
      <MessagesPart messages={messages} />
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

function NothingToday({ isEmpty }: { isEmpty: boolean }) {
  return (
    <Empty
      title={isEmpty ? 'The ledger is empty.' : 'Nothing needs a decision.'}
      text={
        isEmpty
          ? 'Paste the names you own, or bring in a list from each registrar.'
          : 'Every name is paid for, or will be. Come back when you like: what changes is told here.'
      }
    >
      <ButtonLink href={isEmpty ? '/ledger/add' : '/ledger'} data-kind="primary">
        {isEmpty ? 'Add names' : 'To the ledger'}
      </ButtonLink>
    </Empty>
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
