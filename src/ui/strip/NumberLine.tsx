'use client';

/** A figure on a number line. `offer` is a buyer's, `ours` what we answered, `asking` and `minimum` are our prices, `cost` what it has cost. */
export interface LinePoint {
  readonly kind: 'offer' | 'ours' | 'asking' | 'minimum' | 'cost' | 'other';
  /** Minor units, all of one currency. */
  readonly minor: number;
  /** Written at the point, where there is room; otherwise told by the label of the whole. */
  readonly text?: string;
}

const LOOKS: Readonly<Record<LinePoint['kind'], { stroke: string; width: number; dash?: string; high: number }>> = {
  offer: { stroke: 'var(--bearing)', width: 3, high: 7 },
  other: { stroke: 'var(--bearing)', width: 1.5, dash: '2 2', high: 6 },
  ours: { stroke: 'var(--ink)', width: 2, high: 6 },
  asking: { stroke: 'var(--land-edge)', width: 3, high: 7 },
  minimum: { stroke: 'var(--ink-soft)', width: 1.5, high: 4 },
  cost: { stroke: 'var(--caution)', width: 1.5, high: 5 },
};

const EDGE = 3;

/** Where figures stand to each other, from nothing at its left: the same for an offer in a table and on its own page. */
export function NumberLine({
  points,
  width,
  height,
  label,
}: {
  points: readonly LinePoint[];
  width: number;
  height: number;
  label: string;
}) {
  const most = Math.max(1, ...points.map(({ minor }) => minor));
  const x = (minor: number) => EDGE + (Math.max(0, minor) / most) * (width - 2 * EDGE);
  const middle = points.some(({ text }) => text) ? height - 14 : height / 2;
  const offer = points.find(({ kind }) => kind === 'offer');
  let lastEnd = Number.NEGATIVE_INFINITY;
  const texts = points
    .filter(({ text }) => text)
    .toSorted((a, b) => a.minor - b.minor)
    .map((point) => {
      const wide = (point.text?.length ?? 0) * 6.4;
      const from = Math.min(Math.max(0, x(point.minor) - wide / 2), width - wide);
      const row = from < lastEnd + 8 ? 1 : 0;
      lastEnd = row === 0 ? from + wide : lastEnd;
      return { ...point, from, row };
    });
  return (
    <svg width={width} height={height} role="img" aria-label={label} style={{ display: 'block' }}>
      <path d={`M0 ${middle}H${width}`} stroke="var(--rule)" strokeWidth="2" />
      {offer && <path d={`M${EDGE} ${middle}H${x(offer.minor)}`} stroke="var(--shoal)" strokeWidth="4" />}
      {points.map(({ kind, minor }) => {
        const { stroke, width: stroked, dash, high } = LOOKS[kind];
        return (
          <path
            key={`${kind}${minor}`}
            d={`M${x(minor)} ${middle - high}V${middle + high}`}
            stroke={stroke}
            strokeWidth={stroked}
            strokeDasharray={dash}
          />
        );
      })}
      {texts.map(({ kind, minor, text, from, row }) => (
        <text
          key={`${kind}${minor}`}
          x={from}
          y={middle - 12 - row * 14}
          fontSize="12"
          fill={kind === 'offer' ? 'var(--bearing)' : 'var(--ink-soft)'}
        >
          {text}
        </text>
      ))}
    </svg>
  );
}
