'use client';
import styled from 'styled-components';
import type { MoveStage } from '@/core/moving';
import { STAGE_WORDS } from '@/ui/text/movingWords';

/** The stages that a transfer passes on its way, in their order. */
const WAY: readonly MoveStage[] = [
  'checked',
  'zone copied',
  'funded',
  'auto-renew off',
  'unlocked',
  'code held',
  'requested',
  'pending',
  'approved',
  'arrived',
  'looked after',
  'closed',
];

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
  const reached = WAY.indexOf(stage);
  const isBack = reached < 0 && stage !== 'planned';
  const label = isBack ? STAGE_WORDS[stage] : `step ${reached + 1} of ${WAY.length}`;
  return (
    <Line role="img" aria-label={label} data-back={isBack}>
      {WAY.map((one, place) => (
        <i key={one} data-reached={!isBack && place <= reached} />
      ))}
    </Line>
  );
}
