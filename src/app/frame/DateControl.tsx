'use client';
import { memo, useMemo } from 'react';
import { Button as AriaButton, Slider, SliderThumb, SliderTrack } from 'react-aria-components';
import styled from 'styled-components';
import { addDays, type Day, dayIn, daysUntil, formatDay, type Instant } from '@/core/time';
import { Menu } from '@/ui/overlay/Menu';
import { placeOn } from '@/ui/strip/LifecycleStrip';
import { monthsOn } from '@/ui/strip/StripAxis';
import { MOST_DAYS_AHEAD, useDay, useLedger, useMoveDate } from './LedgerProvider';

const TRACK = 196;

const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 12px;
  white-space: nowrap;
`;

const Shown = styled(AriaButton)`
  min-height: 32px;
  padding: 0 4px;
  border: 0;
  background: none;
  font-weight: 700;
  cursor: pointer;
  &[data-hovered] { text-decoration: underline; }
  [data-ahead='true'] > & { color: var(--projection); }
  @media (max-width: 640px) { min-height: 44px; }
`;

const Steps = styled.div`
  width: ${TRACK}px;
  @media (max-width: 640px) { display: none; }
`;

const Track = styled(SliderTrack)`
  width: ${TRACK}px;
  height: 26px;
  & > svg { position: absolute; inset: 0; overflow: visible; }
`;

const Thumb = styled(SliderThumb)`
  top: 12px;
  width: 10px;
  height: 18px;
  border-radius: 2px;
  background: var(--ink);
  cursor: ew-resize;
  &[data-focus-visible] { outline: 2px solid var(--bearing); outline-offset: 2px; }
  [data-ahead='true'] & { background: var(--projection); }
`;

const Presets = styled.div`
  display: flex;
  justify-content: space-between;
  & > button {
    min-height: 24px;
    padding: 0 3px;
    border: 0;
    background: none;
    color: var(--bearing);
    font-size: 0.86rem;
    line-height: 1;
    cursor: pointer;
  }
  & > button[data-hovered] { text-decoration: underline; }
  & > button[aria-pressed='true'] { color: var(--projection); font-weight: 650; }
`;

/** The date shown, and the control that moves it up to two years ahead: by hand, by a month that is seen, or to a usual day. */
export function DateControl() {
  const { style, today } = useLedger();
  const { day, daysAhead } = useDay();
  const { moveDate } = useMoveDate();
  const yearEnd = daysUntil(`${style.today.slice(0, 4)}-12-31` as Day, today, style.zone);
  const choices = useMemo(() => daysToChoose(yearEnd), [yearEnd]);
  return (
    <Line data-ahead={daysAhead > 0}>
      <Menu
        trigger={
          <Shown aria-label={`${formatDay(dayIn(day, style.zone))}: look ahead`}>
            {formatDay(dayIn(day, style.zone))}
          </Shown>
        }
        label="Look ahead"
        choices={choices}
        onChoose={(id) => moveDate(Number(id))}
      />
      <Steps>
        <Slider
          aria-label="Look ahead, in days"
          minValue={0}
          maxValue={MOST_DAYS_AHEAD}
          step={1}
          value={daysAhead}
          onChange={(value) => moveDate(value as number)}
        >
          <Track>
            <Months today={today} />
            <Thumb />
          </Track>
        </Slider>
        <UsualDays yearEnd={yearEnd} chosen={[30, 90, yearEnd].includes(daysAhead) ? daysAhead : null} />
      </Steps>
    </Line>
  );
}

function daysToChoose(yearEnd: number) {
  const choices = new Map([
    [0, 'Today'],
    [7, 'A week ahead'],
    [30, '30 days ahead'],
    [90, '90 days ahead'],
    [365, 'A year ahead'],
    [MOST_DAYS_AHEAD, 'Two years ahead'],
    ...(yearEnd > 0 ? [[yearEnd, 'The year’s end'] as const] : []),
  ]);
  return [...choices].sort(([a], [b]) => a - b).map(([days, text]) => ({ id: String(days), text }));
}

/** The months under the thumb. Not drawn anew when it moves. */
const Months = memo(function Months({ today }: { today: Instant }) {
  const scale = { from: today, to: addDays(today, MOST_DAYS_AHEAD), width: TRACK };
  return (
    <svg width={TRACK} height={26} aria-hidden>
      <path d={`M0 12H${TRACK}`} stroke="var(--ink-soft)" />
      {monthsOn(scale).map(({ at, year, month }) => (
        <g key={at} transform={`translate(${placeOn(scale, at)} 0)`}>
          <path d={month === 1 ? 'M0 6V18' : 'M0 9V15'} stroke="var(--ink-soft)" />
          {month === 1 && (
            <text x="3" y="25" fontSize="10" fill="var(--ink-soft)">
              {year}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
});

/** The days that are mostly wanted. `chosen` is the one that is shown. */
const UsualDays = memo(function UsualDays({ yearEnd, chosen }: { yearEnd: number; chosen: number | null }) {
  const { moveDate } = useMoveDate();
  const presets = [
    { days: 30, text: '+30 days' },
    { days: 90, text: '+90 days' },
    { days: yearEnd, text: 'year’s end' },
  ];
  return (
    <Presets>
      {presets.map(({ days, text }) => (
        <AriaButton
          key={text}
          isDisabled={days === 0}
          aria-label={`Look ahead: ${text}`}
          aria-pressed={chosen === days}
          onPress={() => moveDate(days)}
        >
          {text}
        </AriaButton>
      ))}
    </Presets>
  );
});
