'use client';
import type { StretchKind, LifecycleStrip as Strip } from '@/core/ledger';
import type { Instant } from '@/core/time';

/** The stretch of time a column of strips shows, and how wide it is drawn. */
export interface StripScale {
  readonly from: Instant;
  readonly to: Instant;
  readonly width: number;
}

/** Where an instant stands on a scale, in pixels; beyond its ends it stays at them. */
export function placeOn(scale: StripScale, at: Instant): number {
  const share = (at - scale.from) / (scale.to - scale.from);
  return Math.round(Math.min(1, Math.max(0, share)) * scale.width * 10) / 10;
}

/** Fill and edge of each stretch: the textures are the same wherever a phase is drawn. */
export const PHASE_FILLS: Readonly<Record<StretchKind, { fill: string; edge: string }>> = {
  term: { fill: 'var(--land)', edge: 'var(--land-edge)' },
  'term if charged': { fill: 'var(--land-pale)', edge: 'var(--land-edge)' },
  late: { fill: 'url(#strip-late)', edge: 'var(--shoal-edge)' },
  redemption: { fill: 'url(#strip-redemption)', edge: 'var(--caution)' },
  'pending restore': { fill: 'url(#strip-restoring)', edge: 'var(--caution)' },
  'pending delete': { fill: 'url(#strip-deleting)', edge: 'var(--caution)' },
};

/** The textures of the phases, once in a document. */
export function StripTextures() {
  return (
    <svg width="0" height="0" aria-hidden style={{ position: 'absolute' }}>
      <defs>
        <pattern id="strip-late" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="6" height="6" fill="var(--shoal-pale)" />
          <rect width="2.4" height="6" fill="var(--shoal-edge)" />
        </pattern>
        <pattern id="strip-redemption" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="6" height="6" fill="var(--caution-pale)" />
          <path d="M0 0.5H6M0.5 0V6" stroke="var(--caution)" strokeWidth="1.2" />
        </pattern>
        <pattern id="strip-restoring" width="5" height="5" patternUnits="userSpaceOnUse">
          <rect width="5" height="5" fill="var(--caution-pale)" />
          <path d="M0 2.5H5" stroke="var(--caution)" strokeWidth="1.2" />
        </pattern>
        <pattern id="strip-deleting" width="4" height="4" patternUnits="userSpaceOnUse">
          <rect width="4" height="4" fill="var(--sheet)" />
          <circle cx="2" cy="2" r="0.9" fill="var(--caution)" />
        </pattern>
      </defs>
    </svg>
  );
}

/** One name's life as a strip `height` high: term, late window, redemption, deletion, and where it is charged or lapses. */
export function LifecycleStrip({
  strip,
  scale,
  height,
  day,
  label,
  bar = 12,
}: {
  strip: Strip;
  scale: StripScale;
  height: number;
  day: Instant;
  label: string;
  /** How high the bar itself is. */
  bar?: number;
}) {
  const middle = height / 2;
  const top = middle - bar / 2;
  return (
    <svg width={scale.width} height={height} role="img" aria-label={label}>
      {strip.stretches.map(({ kind, from, to }) => {
        if (to <= scale.from || from >= scale.to) return null;
        const x = placeOn(scale, from);
        const width = Math.max(1.5, placeOn(scale, to) - x);
        const { fill, edge } = PHASE_FILLS[kind];
        return (
          <rect
            key={`${kind}${from}`}
            x={x + 0.5}
            y={top + 0.5}
            width={Math.max(0.5, width - 1)}
            height={bar - 1}
            fill={fill}
            stroke={edge}
            strokeWidth="1"
          />
        );
      })}
      <path d={`M${placeOn(scale, day)} 0V${height}`} stroke="var(--ink)" strokeWidth="1.5" />
      {strip.marks.map(({ kind, at }) => {
        if (at < scale.from || at > scale.to) return null;
        const x = placeOn(scale, at);
        if (kind === 'charge')
          return (
            <circle
              key={`${kind}${at}`}
              cx={x}
              cy={middle}
              r="3.2"
              fill="var(--bearing)"
              stroke="var(--sheet)"
              strokeWidth="0.8"
            />
          );
        if (kind === 'lapse')
          return (
            <path
              key={`${kind}${at}`}
              d={`M${x - 3.5} ${top - 4}L${x} ${top + 2}L${x + 3.5} ${top - 4}`}
              fill="none"
              stroke="var(--ink)"
              strokeWidth="1.6"
            />
          );
        return (
          <g key={`${kind}${at}`} stroke="var(--caution)" strokeWidth="1.5" fill="var(--sheet)">
            <circle cx={x} cy={middle} r="3.6" />
            <path d={`M${x - 2.4} ${middle + 2.4}L${x + 2.4} ${middle - 2.4}`} />
          </g>
        );
      })}
    </svg>
  );
}
