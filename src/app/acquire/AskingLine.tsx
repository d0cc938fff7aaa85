'use client';
import styled from 'styled-components';
import { ANSWER_HOLDS_HOURS } from '@/core/acquiring';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { report } from '@/ui/overlay/Toasts';
import { dayWords, hourWords, namesWords } from '@/ui/text/words';
import type { AskingProgress } from '@/usecases/acquiring/ideas';
import type { CandidateTable } from '@/usecases/acquiring/table';
import { useLedger } from '../frame/LedgerProvider';
import { ASKED_WORDS } from './acquireWords';
import { askAgainAction, pauseAction } from './actions';

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: center;
  padding: 6px 26px;
  color: var(--ink-soft);
  border-bottom: 1px solid var(--rule);
  & button { min-height: 24px; padding-block: 0; }
  @media (max-width: 640px) { padding: 6px 14px; }
`;

interface AskingLineProps {
  readonly table: CandidateTable;
  readonly progress: AskingProgress;
  readonly isPaused: boolean;
  readonly onDone: () => Promise<void>;
}

/** Who was asked and when, how far the asking has come, and what can be done about it. */
export function AskingLine({ table, progress, isPaused, onDone }: AskingLineProps) {
  const { style } = useLedger();
  const { set, askedFrom, askedTo, askedBy } = table;
  const waiting = progress.waiting + progress.records;
  const act = async (asked: ReturnType<typeof pauseAction>) => {
    const answer = await asked;
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    await onDone();
  };
  const who = Object.entries(askedBy)
    .map(([by, count]) => `${count.toLocaleString('en')} ${ASKED_WORDS[by as keyof typeof ASKED_WORDS]}`)
    .join(', ');
  const when =
    askedFrom === null || askedTo === null
      ? ''
      : dayWords(askedFrom, style) === dayWords(askedTo, style)
        ? hourWords(askedTo, style)
        : `${dayWords(askedFrom, style)} to ${hourWords(askedTo, style)}`;
  return (
    <Line role="status">
      {waiting > 0 && (
        <span>
          {isPaused ? 'Paused' : 'Asking'}: {namesWords(progress.waiting)} to be asked for
          {progress.records > 0 && `, ${progress.records.toLocaleString('en')} records to be read`}.
        </span>
      )}
      {who !== '' && (
        <span>
          Asked {when}: {who}.
        </span>
      )}
      {waiting === 0 && <span>Answers are used again for {ANSWER_HOLDS_HOURS} hours.</span>}
      {waiting > 0 && (
        <Button onPress={() => void act(pauseAction(set.id, !isPaused))}>{isPaused ? 'Resume' : 'Pause'}</Button>
      )}
      {waiting === 0 && <Button onPress={() => void act(askAgainAction(set.id, true))}>Ask for all anew</Button>}
    </Line>
  );
}
