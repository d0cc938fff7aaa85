'use client';
import { Slider, SliderThumb, SliderTrack } from 'react-aria-components';
import styled from 'styled-components';
import { dayIn, formatDay } from '@/core/time';
import { MOST_DAYS_AHEAD, useDay, useLedger } from './LedgerProvider';

const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  white-space: nowrap;
`;

const Shown = styled.strong`
  min-width: 92px;
  text-align: right;
  &[data-ahead='true'] { color: var(--projection); }
`;

const Track = styled(SliderTrack)`
  width: 150px;
  height: 24px;
  &::before { content: ''; position: absolute; left: 0; right: 0; top: 11px; border-top: 2px solid var(--rule); }
`;

const Thumb = styled(SliderThumb)`
  top: 50%;
  width: 10px;
  height: 18px;
  border-radius: 2px;
  background: var(--ink);
  cursor: ew-resize;
  &[data-focus-visible] { outline: 2px solid var(--bearing); outline-offset: 2px; }
  [data-ahead='true'] & { background: var(--projection); }
`;

/** The date shown, and the control that moves it up to two years ahead. */
export function DateControl() {
  const { style } = useLedger();
  const { day, daysAhead, moveDate } = useDay();
  const shown = formatDay(dayIn(day, style.zone));
  const ahead = daysAhead > 0;
  return (
    <Line data-ahead={ahead}>
      <Shown data-ahead={ahead}>{shown}</Shown>
      <Slider
        aria-label="Look ahead, in days"
        minValue={0}
        maxValue={MOST_DAYS_AHEAD}
        step={1}
        value={daysAhead}
        onChange={(value) => moveDate(value as number)}
      >
        <Track>
          <Thumb />
        </Track>
      </Slider>
      <span className="soft">+2 years</span>
    </Line>
  );
}
