'use client';
import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { type MovingFacts, type MovingStretch, movingCalendar } from '@/core/moving';
import { addDays, type Instant, monthName } from '@/core/time';
import { LifecycleStrip, placeOn, type StripScale } from '@/ui/strip/LifecycleStrip';
import { monthsOn } from '@/ui/strip/StripAxis';
import { formatAmount } from '@/ui/text/figures';
import { useWidth } from '@/ui/text/useWidth';
import { dayWords, outlookWords, PHASE_WORDS } from '@/ui/text/words';
import { useDay, useLedger } from '../../frame/LedgerProvider';
import type { RowView } from '../../frame/views';
import { LABEL_GAP, type LabelPlaces, placeLabels } from './labelPlaces';
import { movingLabels, type StripLabel, stripLabels } from './stripLabels';

const Whole = styled.figure`
  position: relative;
  & svg text { font-size: 11px; }
`;

const Probe = styled.div`
  position: absolute;
  left: 0;
  right: 0;
  top: 50px;
  height: 34px;
  cursor: crosshair;
  touch-action: pan-y;
`;

const DAYS_BACK = 145;
const DAYS_ON = 195;
const BAR_TOP = 50;
const BAR_HEIGHT = 34;
const LEVEL = 37;

/** The life of a name, large: each deadline with its date and cost; any point tells phase and cost on its day. */
export function LargeStrip({ row, moving }: { row: RowView; moving: MovingFacts }) {
  const { today, style } = useLedger();
  const { day } = useDay();
  const box = useRef<HTMLElement>(null);
  const width = useWidth(box, 1060, 280);
  const { probed, told, setProbed } = useProbe(row);
  if (!row.strip || !row.marks) return null;
  const centre = row.marks.termEnd > addDays(day, DAYS_ON) ? addDays(row.marks.termEnd, -DAYS_ON + 40) : day;
  const scale: StripScale = { from: addDays(centre, -DAYS_BACK), to: addDays(centre, DAYS_ON), width };
  const at = (x: number) => (scale.from + (x / width) * (scale.to - scale.from)) as Instant;
  const probe = (to: Instant) => setProbed(Math.max(today, Math.min(scale.to, to)) as Instant);
  const onKeyDown = (event: KeyboardEvent) => {
    const days = STEPS[event.key];
    if (days === undefined) return;
    event.preventDefault();
    probe(addDays(probed ?? day, days));
  };
  return (
    <Whole ref={box as never}>
      <Drawing row={row} moving={moving} strip={row.strip} scale={scale} probed={probed} />
      <Probe
        role="slider"
        tabIndex={0}
        aria-label="A day on the life of this name"
        aria-valuemin={today}
        aria-valuemax={scale.to}
        aria-valuenow={probed ?? day}
        aria-valuetext={told ?? outlookWords(row.outlook, style)}
        onKeyDown={onKeyDown}
        onBlur={() => setProbed(null)}
        onPointerMove={(event: PointerEvent<HTMLDivElement>) => probe(at(event.nativeEvent.offsetX))}
        onPointerLeave={() => setProbed(null)}
      />
      <figcaption className="soft" style={{ minHeight: '1.5em' }}>
        {told ?? 'Point at the strip, or step along it with the arrow keys, to see any day.'}
      </figcaption>
    </Whole>
  );
}

/** How many days a key moves the point. */
const STEPS: Readonly<Record<string, number>> = {
  ArrowRight: 1,
  ArrowUp: 1,
  ArrowLeft: -1,
  ArrowDown: -1,
  PageUp: 30,
  PageDown: -30,
};

/** The day that is pointed at, and what holds on it, in words. */
function useProbe(row: RowView) {
  const { style, worker } = useLedger();
  const [probed, setProbed] = useState<Instant | null>(null);
  const [told, setTold] = useState<string | null>(null);
  useEffect(() => {
    let stale = false;
    if (probed === null) setTold(null);
    else {
      void worker?.name(row.name.ascii, probed).then((found) => {
        if (stale || !found) return;
        const then = found.row;
        const cost = then.deadline?.before ?? null;
        setTold(
          `${dayWords(probed, style)}: ${then.phase ? PHASE_WORDS[then.phase].word : 'not known'}, ${outlookWords(then.outlook, style)}${cost ? `, ${formatAmount(cost)} to keep it` : ''}`,
        );
      });
    }
    return () => {
      stale = true;
    };
  }, [probed, worker, row.name.ascii, style]);
  return { probed, told, setProbed };
}

interface DrawingProps {
  readonly row: RowView;
  readonly moving: MovingFacts;
  readonly strip: NonNullable<RowView['strip']>;
  readonly scale: StripScale;
  readonly probed: Instant | null;
}

/** Months, the strip, today's line, the point that is looked at, and a label to each deadline. */
function Drawing({ row, moving, strip, scale, probed }: DrawingProps) {
  const { today, style } = useLedger();
  const { day } = useDay();
  const { width } = scale;
  const labels = [...stripLabels(row, style), ...movingLabels(moving, day, style)].filter(
    ({ at }) => at >= scale.from && at <= scale.to,
  );
  const { side, levels } = placeLabels(
    labels.map((label) => ({ x: placeOn(scale, label.at), wide: widthOf(label) })),
    width,
  );
  const height = BAR_TOP + BAR_HEIGHT + 12 + Math.max(1, labels.length) * LEVEL;
  const now = placeOn(scale, day);
  return (
    <svg width={width} height={height} aria-hidden>
      {monthsOn(scale).map(({ at: month, year, month: number }) => (
        <g key={month} transform={`translate(${placeOn(scale, month) + 0.5} 0)`}>
          <path d={`M0 0V${BAR_TOP + BAR_HEIGHT}`} stroke="var(--rule)" />
          <text x="4" y="12" fill="var(--ink-soft)">
            {monthWords(number, year, width)}
          </text>
        </g>
      ))}
      <text x={now + 5} y={BAR_TOP - 12} fontWeight="700" fill="var(--ink)">
        {day === today ? 'today' : dayWords(day, style)}
      </text>
      <g transform={`translate(0 ${BAR_TOP})`}>
        <LifecycleStrip
          strip={strip}
          scale={scale}
          height={BAR_HEIGHT}
          day={day}
          label={outlookWords(row.outlook, style)}
          bar={26}
        />
      </g>
      <path d={`M${now} ${BAR_TOP - 22}V${BAR_TOP + BAR_HEIGHT + 4}`} stroke="var(--ink)" strokeWidth="1.5" />
      <MovingLine stretches={movingCalendar(moving, day, scale.to)} scale={scale} />
      {probed !== null && (
        <path
          d={`M${placeOn(scale, probed)} ${BAR_TOP}V${BAR_TOP + BAR_HEIGHT}`}
          stroke="var(--bearing)"
          strokeWidth="2"
          strokeDasharray="3 2"
        />
      )}
      {labels.map((label, i) => {
        const x = placeOn(scale, label.at);
        const down = side === 'below' ? 5 : 30 + (levels[i] ?? 0) * LEVEL;
        return (
          <path
            key={label.key}
            d={`M${x} ${BAR_TOP + BAR_HEIGHT - 2}V${BAR_TOP + BAR_HEIGHT + down}`}
            stroke={labelColour(label)}
          />
        );
      })}
      {labels.map((label, i) => (
        <Label
          key={label.key}
          label={label}
          x={placeOn(scale, label.at)}
          y={BAR_TOP + BAR_HEIGHT + 4 + (levels[i] ?? 0) * LEVEL}
          side={side}
        />
      ))}
    </svg>
  );
}

const LINE_OF: Readonly<Record<MovingStretch['kind'], string | null>> = {
  cannot: null,
  'loses a year': '3 4',
  can: '',
};

/** Under the bar: a line where a transfer can be requested, dashes where it would lose a paid year. */
function MovingLine({ stretches, scale }: { stretches: readonly MovingStretch[]; scale: StripScale }) {
  return stretches.map(({ kind, from, until }) => {
    const dashes = LINE_OF[kind];
    return (
      dashes !== null && (
        <path
          key={from}
          d={`M${placeOn(scale, from)} ${BAR_TOP + BAR_HEIGHT + 1}H${placeOn(scale, until)}`}
          stroke="var(--bearing)"
          strokeWidth="2"
          strokeDasharray={dashes}
        />
      )
    );
  });
}

/** How wide a label is, in pixels, by the letters of its longer line at its size. */
const widthOf = ({ title, text }: StripLabel) => Math.max(title.length * 6.5, text.length * 5.8);

function Label({ label, x, y, side }: { label: StripLabel; x: number; y: number; side: LabelPlaces['side'] }) {
  const at = {
    right: { x: x + LABEL_GAP, textAnchor: 'start' as const },
    left: { x: x - LABEL_GAP, textAnchor: 'end' as const },
    below: { x: 0, textAnchor: 'start' as const },
  }[side];
  return (
    <g fill={labelColour(label)} stroke="var(--sheet)" strokeWidth="4" paintOrder="stroke">
      <text {...at} y={y + 12} fontWeight="700">
        {label.title}
      </text>
      <text {...at} y={y + 26}>
        {label.text}
      </text>
    </g>
  );
}

/** The word for a month, as far as there is room: below 60 pixels a month without the year, below 40 every other one. */
function monthWords(month: number, year: number, width: number): string {
  const room = width / ((DAYS_BACK + DAYS_ON) / 30);
  if (room < 40 && month % 2 === 0) return '';
  return month === 1 && room >= 60 ? `${monthName(month)} ${year}` : monthName(month);
}

function labelColour(label: StripLabel): string {
  return label.caution ? 'var(--caution)' : 'var(--ink)';
}
