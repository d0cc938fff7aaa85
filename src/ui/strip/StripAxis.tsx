'use client';
import { type Instant, monthName } from '@/core/time';
import { placeOn, type StripScale } from './LifecycleStrip';

/** The months of a scale: the instants at which each begins (UTC). */
export function monthsOn(scale: StripScale): { at: Instant; year: number; month: number }[] {
  const first = new Date(scale.from);
  const months: { at: Instant; year: number; month: number }[] = [];
  for (let i = 0; ; i += 1) {
    const at = Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + i, 1) as Instant;
    if (at > scale.to) return months;
    const date = new Date(at);
    if (at >= scale.from) months.push({ at, year: date.getUTCFullYear(), month: date.getUTCMonth() + 1 });
  }
}

const ROOM_FOR_A_NAME = 24;

/** The axis of a column of life strips, for its header, with the chosen day marked. */
export function StripAxis({ scale, day, height }: { scale: StripScale; day: Instant; height: number }) {
  const now = placeOn(scale, day);
  const months = monthsOn(scale);
  // Where a month has no room for its name, every second one is named, counted from January.
  const every = scale.width / Math.max(1, months.length) < ROOM_FOR_A_NAME ? 2 : 1;
  return (
    <svg width={scale.width} height={height} aria-hidden>
      {months.map(({ at, year, month }) => (
        <g key={at} transform={`translate(${placeOn(scale, at) + 0.5} 0)`}>
          <path d={`M0 ${height - 22}V${height}`} stroke="var(--rule)" />
          <text x="3" y={height - 10} fontSize="10" fill="var(--ink-soft)">
            {(month - 1) % every !== 0 || placeOn(scale, at) + ROOM_FOR_A_NAME > scale.width
              ? ''
              : month === 1
                ? `’${String(year).slice(2)}`
                : monthName(month)}
          </text>
        </g>
      ))}
      <path d={`M${now - 4} ${height - 30}h8l-4 6z`} fill="var(--ink)" />
      <path d={`M${now} ${height - 26}V${height}`} stroke="var(--ink)" strokeWidth="1.5" />
    </svg>
  );
}
