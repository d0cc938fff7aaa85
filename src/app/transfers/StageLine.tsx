'use client';
import styled from 'styled-components';
import { MOVE_WAY, type MoveStage } from '@/core/moving';
import { STAGE_WORDS } from '@/ui/text/movingWords';

const Line = styled.span`
  display: flex;
  gap: 2px;
  padding-block: 3px;
  /* The strip of a life in little: passed stages are land, the present one is hatched, the coming ones empty. */
  & > i { flex: 1; max-width: 16px; height: 10px; border: 1px solid var(--rule); background: var(--sheet); }
  & > i[data-reached='true'] { background: var(--land); border-color: var(--land-edge); }
  & > i[data-present='true'] { background: repeating-linear-gradient(135deg, var(--shoal-edge) 0 1.5px, var(--shoal-pale) 1.5px 4px); border-color: var(--shoal-edge); }
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
        <i key={one} data-reached={!isBack && place <= reached} data-present={!isBack && place === reached} />
      ))}
    </Line>
  );
}
