'use client';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import type { Unknowns } from '@/core/ledger';
import { ButtonLink } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { DecisionTable } from '@/ui/grid/DecisionTable';
import { StripAxis } from '@/ui/strip/StripAxis';
import { tableScale } from '@/ui/strip/tableScale';
import { Answer, Head, Page } from '@/ui/text/Sheet';
import { Empty, Failed, Loading } from '@/ui/text/States';
import { chargedWords, lostWords } from '@/ui/text/todayWords';
import { dayWords } from '@/ui/text/words';
import type { AcquiringItem } from '@/usecases/acquiring/today';
import type { MessageRow } from '@/usecases/links/messages';
import type { ForeignTransfer } from '@/usecases/moving/foreign';
import type { TransferView } from '@/usecases/moving/underWay';
import type { Waiting } from '@/usecases/people/confirmations';
import type { WatchRow } from '@/usecases/records/watch';
import type { OtherKey } from '@/usecases/secrets/keys';
import type { AgendaGroup } from '@/usecases/selling/report';
import { answerLines, owedLines } from '../acts/agenda/sellingLines';
import { SwitchDialog } from '../acts/switch/SwitchDialog';
import { toldRefused } from '../acts/toldRefused';
import { useLedger } from '../frame/LedgerProvider';
import { useTitle } from '../frame/PageTitle';
import type { RowView, TodayView } from '../frame/views';
import { AlarmPart } from './AlarmPart';
import { MailsPart, MessagesPart, WatchedPart } from './ArrivedParts';
import { seenNamesAction } from './actions';
import { OtherKeyNotice } from './OtherKeyNotice';
import { acquiringLines, transferLines } from './otherLines';
import { TimeLine } from './TimeLine';
import { UnknownBar } from './UnknownBar';
import { useNameLines } from './useNameLines';
import { WaitingPart } from './WaitingPart';

const MOST_ROWS = 30;

interface TodayScreenProps {
  readonly messages: readonly MessageRow[];
  /** How many mails tell something that nobody has decided about. */
  readonly mails: number;
  readonly unseen: readonly number[];
  /** Watched names that are available, become so soon, or changed since yesterday. */
  readonly watched: readonly WatchRow[];
  /** What awaits the owner in selling, by kind. */
  readonly selling: readonly AgendaGroup[];
  /** Logins that another key has sealed: their links stand still. */
  readonly otherKey: readonly OtherKey[];
  /** Transfers that nobody here asked for. */
  readonly alarms: readonly ForeignTransfer[];
  /** Transfers of our own that wait for the person, or have waited longer than usual. */
  readonly transfers: readonly TransferView[];
  readonly acquiring: readonly AcquiringItem[];
  /** What waits for a second person. */
  readonly waiting: readonly Waiting[];
}

const NO_LISTS: TodayView['lists'] = [];

/** A way on at the end of a sentence: never broken, and apart from its neighbour. */
const Way = styled(Link)`white-space: nowrap; margin-right: 8px;`;

/** What needs a decision today: what is lost first, on a line of time, then line by line. */
export function TodayScreen(props: TodayScreenProps) {
  const { messages, unseen, watched, selling, otherKey, alarms, transfers, acquiring, mails, waiting } = props;
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
    if (toldRefused(await seenNamesAction(ids))) return;
    setOpen((now) => new Set([...now].filter((id) => !ids.includes(id))));
  };
  const names = useNameLines(view?.lists ?? NO_LISTS, {
    isOpen: (row) => open.has(row.name.id),
    onSwitch: (row) => setSwitching([row]),
    onSeen: (row) => void seen([row.name.id]),
  });

  if (problem) return <Failed text={problem} onRetry={() => void reload()} />;
  if (view === null || meta === null) return <Loading text="Looking through the ledger" />;
  const told = { today, style };
  // What is lost, then what is owed, then what gets dearer, then what others wait for.
  const [lost, later] = [names.filter((part) => part.isLost), names.filter((part) => !part.isLost)];
  const parts = [
    ...lost,
    ...owedLines(selling, told),
    ...later,
    ...answerLines(selling, told),
    ...transferLines(transfers, told),
    ...acquiringLines(acquiring, told),
  ];
  const nothing =
    parts.length === 0 && mails === 0 && [messages, watched, alarms, waiting].every(({ length }) => length === 0);
  const offers = selling.flatMap(({ kind, items }) => (kind === 'offer to answer' ? items : []));
  return (
    <>
      <Page style={{ flex: 1 }}>
        <AlarmPart alarms={alarms} />
        <WaitingPart waiting={waiting} />
        <Summary summary={view.summary} unknowns={meta.unknowns} />
        {otherKey.length > 0 && <OtherKeyNotice places={otherKey} />}
        {nothing && <NothingToday isWhole={meta.unknowns.resting === 0} />}
        <TimeLine view={view} offers={offers} />
        {parts.length > 0 && (
          <DecisionTable
            label="What wants a decision"
            parts={parts}
            axis={<StripAxis scale={tableScale(today)} day={today} height={33} />}
          />
        )}
        <WatchedPart watched={watched} />
        <MailsPart count={mails} />
        <MessagesPart messages={messages} />
        <SwitchDialog
          what="auto-renew"
          isOpen={switching.length > 0}
          onClose={() => setSwitching([])}
          nameIds={switching.map((row) => row.name.id)}
          rows={switching}
        />
      </Page>
      <UnknownBar />
    </>
  );
}

function NothingToday({ isWhole }: { isWhole: boolean }) {
  return (
    <Empty
      title="Nothing needs a decision."
      text={`${isWhole ? 'Every name is paid for, or will be.' : 'What nobody has said yet stands at the foot.'} Come back when you like: what changes is told here.`}
    >
      <ButtonLink href="/ledger" data-kind="primary">
        To the ledger
      </ButtonLink>
    </Empty>
  );
}

/** The answer: what is lost by when and what saves it; then what is charged meanwhile. */
function Summary({ summary, unknowns }: { summary: TodayView['summary']; unknowns: Unknowns }) {
  const { style } = useLedger();
  const { lost, rest } = lostWords(summary, unknowns, style);
  return (
    <Head>
      <Answer>
        {lost && <span className="caution">{lost} </span>}
        {rest}
      </Answer>
      <p>
        {chargedWords(summary)}{' '}
        {summary.fails > 0 && summary.failsFrom !== null && summary.lost > 0 && (
          <>
            {summary.fails === 1 ? 'One charge fails' : `${summary.fails.toLocaleString('en')} charges fail`}, the first
            on {dayWords(summary.failsFrom, style)}. <Way href="/renewals">See the funding</Way>{' '}
          </>
        )}
        {summary.lost > 0 && <Way href="/rescue">To Rescue</Way>}
      </p>
    </Head>
  );
}
