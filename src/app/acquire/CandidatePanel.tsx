'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useState } from 'react';
import styled from 'styled-components';
import { type CandidateView, isOpen, kindAt } from '@/core/acquiring';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import type { CandidateDetail } from '@/usecases/acquiring/detail';
import type { CandidateTable } from '@/usecases/acquiring/table';
import { useSave } from '../acts/useSave';
import { KIND_WORDS, lettersWords } from './acquireWords';
import { detailAction, wantAction } from './actions';
import { CostPart } from './CostPart';
import { NeighboursPart } from './NeighboursPart';
import { TakenPart } from './TakenPart';

const Panel = styled.aside`
  display: flex;
  flex-direction: column;
  gap: 14px;
  padding: 16px 20px 30px;
  border-left: 1px solid var(--rule);
  overflow: auto;
  min-width: 0;
  & h2 { margin: 0; font-size: 1rem; }
  & td { overflow-wrap: anywhere; }
  & td:first-child { overflow-wrap: normal; min-width: 96px; }
  @media (max-width: 900px) { border-left: 0; border-top: 1px solid var(--rule); padding: 14px; }
`;

const Spelt = styled.h2`
  && { font-size: 1.7rem; letter-spacing: 0.22em; overflow-wrap: anywhere; line-height: 1.2; }
`;

const Endings = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  & button { padding: 1px 7px; min-height: 24px; border: 1px solid var(--rule); border-radius: 3px; background: none; color: var(--ink); cursor: pointer; }
  & button[aria-pressed='true'] { border-color: var(--bearing); font-weight: 600; }
`;

interface CandidatePanelProps {
  readonly table: CandidateTable;
  readonly view: CandidateView;
  readonly row: number;
  readonly column: number;
  readonly onColumn: (column: number) => void;
  readonly onChanged: () => Promise<void>;
}

/** One candidate: spelt out, what it costs to hold under an ending, who has it, and what stands near it. */
export function CandidatePanel({ table, view, row, column, onColumn, onChanged }: CandidatePanelProps) {
  const ending = view.endings[column]?.ending ?? '';
  const label = view.labels[row] ?? '';
  const ascii = `${label}.${ending}`;
  const { detail, read } = useDetail(ascii, table.pieces[row] ?? []);
  const kind = kindAt(view, row * view.width + column);
  const letters = [...(view.unicodes[row] ?? '')].length;
  return (
    <Panel aria-label={`${view.unicodes[row]}.${ending}`}>
      <div>
        <Spelt className="name">{view.unicodes[row]}</Spelt>
        <p className="soft">
          {lettersWords(letters)}
          {detail?.spelling.aloud && <> · {detail.spelling.aloud}</>}
        </p>
        {detail && detail.spelling.notes.length + detail.meant.length > 0 && (
          <p>
            {[
              ...detail.meant.map(({ piece, meant }) => `${piece}: ${meant}? You have names with that`),
              ...detail.spelling.notes.map(({ text }) => text),
            ].join(' · ')}
          </p>
        )}
      </div>
      <Endings role="group" aria-label="Ending">
        {view.endings.map((one, i) => (
          <button key={one.ending} type="button" aria-pressed={i === column} onClick={() => onColumn(i)}>
            .{one.ending}
          </button>
        ))}
      </Endings>
      <p>
        <b className="name">
          {view.unicodes[row]}.{ending}
        </b>
        : {KIND_WORDS[kind]}
        {detail?.answer?.why ? `: ${detail.answer.why}` : ''}.
      </p>
      {kind === 'taken' ? (
        detail && <TakenPart detail={detail} taken={view.takenByCell.get(row * view.width + column)} onChanged={read} />
      ) : (
        <CostPart table={table} view={view} row={row} column={column} detail={detail} />
      )}
      {isOpen(kind) && (
        <ShortlistPart
          name={`${view.unicodes[row]}.${ending}`}
          typed={(table.pieces[row] ?? []).join('')}
          purpose={table.set.label}
        />
      )}
      {detail && <NeighboursPart detail={detail} onChanged={onChanged} />}
    </Panel>
  );
}

/** Puts the name on the shortlist of its ideas: it is spelt out and priced there. */
function ShortlistPart({ name, typed, purpose }: { name: string; typed: string; purpose: string }) {
  const router = useRouter();
  const { ask, isBusy } = useSave();
  const want = () => ask(wantAction({ names: [{ name, typed }], purpose }), `${name} is on the shortlist.`);
  return (
    <Actions>
      <Button
        data-kind="primary"
        isDisabled={isBusy}
        onPress={async () => {
          if ((await want()) !== null) router.push('/acquire/shortlist');
        }}
      >
        Spell out and register…
      </Button>
      <Button isDisabled={isBusy} onPress={() => void want()}>
        Shortlist it
      </Button>
    </Actions>
  );
}

const READ_AFTER_MS = 120;

/** Everything that is known of a name, read when it is looked at. */
function useDetail(ascii: string, pieces: readonly string[]) {
  const [detail, setDetail] = useState<CandidateDetail | null>(null);
  const key = pieces.join(' ');
  const read = useCallback(async () => {
    const found = await detailAction(ascii, key === '' ? [] : key.split(' '));
    if (isRefusal(found)) report({ text: found.message, problem: true });
    else setDetail(found);
  }, [ascii, key]);
  // Whoever goes through the rows does not wait for each.
  useEffect(() => {
    const timer = setTimeout(() => void read(), READ_AFTER_MS);
    return () => clearTimeout(timer);
  }, [read]);
  return { detail: detail?.ascii === ascii ? detail : null, read };
}
