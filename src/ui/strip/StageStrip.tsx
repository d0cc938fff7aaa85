'use client';

/** Stages in their order as a strip of the same family: passed ones are paid land, the present one is hatched, the coming ones empty. */
export function StageStrip({
  stages,
  present,
  isOverdue,
  width,
  height,
  label,
  bar = 12,
}: {
  stages: readonly string[];
  present: string;
  /** The present stage should have been over by now. */
  isOverdue: boolean;
  width: number;
  height: number;
  label: string;
  bar?: number;
}) {
  const at = stages.indexOf(present);
  const step = width / stages.length;
  const top = height / 2 - bar / 2;
  const look = (place: number) => {
    if (place < at || (place === at && place === stages.length - 1))
      return { fill: 'var(--land)', edge: 'var(--land-edge)' };
    if (place > at) return { fill: 'var(--sheet)', edge: 'var(--rule)' };
    return isOverdue
      ? { fill: 'url(#strip-redemption)', edge: 'var(--caution)' }
      : { fill: 'url(#strip-late)', edge: 'var(--shoal-edge)' };
  };
  return (
    <svg width={width} height={height} role="img" aria-label={label} style={{ display: 'block' }}>
      {stages.map((stage, place) => (
        <rect
          key={stage}
          x={place * step + 0.5}
          y={top + 0.5}
          width={step - 1.5}
          height={bar - 1}
          fill={look(place).fill}
          stroke={look(place).edge}
        />
      ))}
    </svg>
  );
}
