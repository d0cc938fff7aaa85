'use client';
import styled from 'styled-components';
import { MOVE_WAY, type MoveStage } from '@/core/moving';
import { STAGE_WORDS } from '@/ui/text/movingWords';

const Line = styled.span`
  display: flex;
  gap: 2px;
  padding-block: 3px;
  & > i { flex: 1; max-width: 14px; height: 6px; border: 1px solid var(--ink-soft); border-radius: 1px; }
  & > i[data-reached='true'] { background: var(--bearing); border-color: var(--bearing); }
  &[data-back='true'] > i { border-style: dashed; background: none; }
`;

/** How far a transfer has come, as a line of its stages; dashed where it goes back. */
export function StageLine({ stage }: { stage: MoveStage }) {
  const reached = MOVE_WAY.indexOf(stage);
  const isBack = reached < 0 && stage !== 'planned';
  const label = isBack ? STAGE_WORDS[stage] : `step ${reached + 1} of ${MOVE_WAY.length}`;
  return (
    <Line role="img" aria-label={label} data-back={isBack}>
      {MOVE_WAY.map((one, place) => (
        <i key={one} data-reached={!isBack && place <= reached} />
      ))}
    </Line>
  );
}
