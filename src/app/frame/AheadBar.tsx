'use client';
import styled from 'styled-components';
import { dayIn, formatDay } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { restsWords } from '@/ui/text/todayWords';
import { useDay, useLedger, useMoveDate } from './LedgerProvider';

const Ahead = styled.div`
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 5px 18px;
  background: var(--projection-pale);
  border-bottom: 1px solid var(--projection);
`;

/** Says that what is seen is another day than today, what it rests on, and how to come back. */
export function AheadBar() {
  const { style, meta } = useLedger();
  const { day } = useDay();
  const { moveDate } = useMoveDate();
  return (
    <Ahead role="status">
      <strong>As of {formatDay(dayIn(day, style.zone))}, if nothing is done.</strong>
      <span className="soft">
        Looking ahead changes nothing
        {meta !== null && meta.unknowns.resting > 0 && `; ${restsWords(meta.unknowns)}`}.
      </span>
      <Button data-kind="plain" onPress={() => moveDate(0)}>
        Back to today (T)
      </Button>
    </Ahead>
  );
}
