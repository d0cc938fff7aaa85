'use client';

import { type LinePoint, placeOnLine, textsOnLine } from './linePoints';

const LOOKS: Readonly<Record<LinePoint['kind'], { stroke: string; width: number; dash?: string; reach: number }>> = {
  offer: { stroke: 'var(--bearing)', width: 3, reach: 7 },
  other: { stroke: 'var(--bearing)', width: 1.5, dash: '2 2', reach: 6 },
  ours: { stroke: 'var(--ink)', width: 2, reach: 6 },
  asking: { stroke: 'var(--land-edge)', width: 3, reach: 7 },
  minimum: { stroke: 'var(--ink-soft)', width: 1.5, reach: 4 },
  cost: { stroke: 'var(--caution)', width: 1.5, reach: 5 },
};

const ROW = 14;

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
  const x = placeOnLine(points, width);
  const texts = textsOnLine(points, width);
  // Every row of texts has its height, however close the figures stand.
  const rows = texts.reduce((most, { row }) => Math.max(most, row + 1), 0);
  const high = Math.max(height, rows * ROW + 32);
  const middle = rows > 0 ? high - 14 : high / 2;
  const offer = points.find(({ kind }) => kind === 'offer');
  return (
    <svg width={width} height={high} role="img" aria-label={label} style={{ display: 'block' }}>
      <path d={`M0 ${middle}H${width}`} stroke="var(--rule)" strokeWidth="2" />
      {offer && <path d={`M${x(0)} ${middle}H${x(offer.minor)}`} stroke="var(--shoal)" strokeWidth="4" />}
      {points.map(({ kind, minor }) => {
        const { stroke, width: stroked, dash, reach } = LOOKS[kind];
        return (
          <path
            key={`${kind}${minor}`}
            d={`M${x(minor)} ${middle - reach}V${middle + reach}`}
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
          y={middle - 12 - row * ROW}
          fontSize="12"
          fill={kind === 'offer' ? 'var(--bearing)' : 'var(--ink-soft)'}
        >
          {text}
        </text>
      ))}
    </svg>
  );
}
