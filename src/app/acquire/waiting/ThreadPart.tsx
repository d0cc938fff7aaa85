'use client';
import styled from 'styled-components';
import { Button } from '@/ui/controls/Button';
import { formatAmount } from '@/ui/text/figures';
import { Section } from '@/ui/text/Sheet';
import { dayWords, untilWords } from '@/ui/text/words';
import type { ApproachLine, ApproachRow } from '@/usecases/acquiring/approaches';
import { useSave } from '../../acts/useSave';
import { useLedger } from '../../frame/LedgerProvider';
import { moveApproachAction } from '../actions';
import { AgreeForm } from './AgreeForm';
import { ArriveForm, PaidForm } from './PaidForms';
import { SayForm } from './SayForm';

const Lines = styled.ol`
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-direction: column;
  gap: 8px;
  & > li { padding: 6px 12px; border-left: 3px solid var(--rule); max-width: 760px; white-space: pre-wrap; }
  & > li[data-ours='true'] { border-color: var(--bearing); margin-left: 32px; }
`;

/** One thread with a holder: what was said, and what comes next. */
export function ThreadPart({ thread }: { thread: ApproachRow }) {
  const { style, meta } = useLedger();
  const { ask } = useSave({ ledger: true });
  const {
    id,
    unicode,
    holder,
    contact,
    limitMinor,
    currency,
    state,
    answerBy,
    agreedMinor,
    feesMinor,
    moneyWith,
    note,
  } = thread;
  const money = (minor: number) => formatAmount({ minor, currency });
  const account = meta?.rules.accounts.find((one) => one.id === thread.accountId)?.label ?? '';
  const facts = [
    holder === '' ? 'holder not known' : holder,
    contact,
    limitMinor === null ? 'no limit set' : `up to ${money(limitMinor)}`,
    note,
  ].filter((text) => text !== '');
  return (
    <Section aria-label={`Thread about ${unicode}`}>
      <h2>
        <span className="name">{unicode}</span>:{' '}
        {state === 'open'
          ? answerBy === null
            ? 'asked'
            : `an answer is awaited until ${untilWords(answerBy, style)}`
          : state === 'agreed'
            ? `agreed for ${money(agreedMinor ?? 0)}, to be paid`
            : `paid, to arrive at ${account} by ${thread.arrivesBy}`}
      </h2>
      <p className="soft">{facts.join(' · ')}</p>
      {state !== 'open' && feesMinor > 0 && (
        <p className="soft">
          Fees {money(feesMinor)}
          {moneyWith === '' ? '' : `; ${moneyWith} holds the money`}.
        </p>
      )}
      {thread.lines.length > 0 && <Said lines={thread.lines} currency={currency} />}
      {state === 'open' && <SayForm thread={thread} />}
      {state === 'open' && <AgreeForm thread={thread} />}
      {state === 'agreed' && <PaidForm thread={thread} />}
      {state === 'paid' && <ArriveForm thread={thread} />}
      {state !== 'paid' && (
        <div>
          <Button
            data-kind="plain"
            onPress={() => void ask(moveApproachAction({ id, to: 'ended' }), 'The thread is ended.')}
          >
            End this thread
          </Button>
        </div>
      )}
    </Section>
  );
}

function Said({ lines, currency }: { lines: readonly ApproachLine[]; currency: string }) {
  const { style } = useLedger();
  return (
    <Lines>
      {lines.map((line, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: lines are only ever added at the end
        <li key={i} data-ours={line.isOurs}>
          <span className="soft">
            {line.isOurs ? (line.person ?? 'You') : 'The holder'}, {dayWords(line.at, style)}
            {!line.isOurs && line.person !== null && `, noted by ${line.person}`}
            {line.byMail && (line.sentAt === null ? ', by mail: not known whether it was sent' : ', by mail')}
          </span>
          <div>{line.text}</div>
          {line.figureMinor !== null && <b>{formatAmount({ minor: line.figureMinor, currency })}</b>}
        </li>
      ))}
    </Lines>
  );
}
