'use client';
import { useRef } from 'react';
import { useWidth } from '../text/useWidth';

const HEIGHT = 30;
const BAR = 12;

/** How far a budget goes: what is spent of it is land, what is left is empty, what is spent beyond it is hatched. Minor units of one currency. */
export function BudgetLine({
  budgetMinor,
  spentMinor,
  label,
}: {
  budgetMinor: number;
  spentMinor: number;
  label: string;
}) {
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 600, 120);
  const { whole, land, over } = budgetParts(budgetMinor, spentMinor, width);
  const top = (HEIGHT - BAR) / 2;
  return (
    <div ref={box}>
      <svg width={width} height={HEIGHT} role="img" aria-label={label} style={{ display: 'block' }}>
        {[
          { from: 0, wide: whole, fill: 'var(--sheet)', edge: 'var(--rule)' },
          { from: 0, wide: land, fill: 'var(--land)', edge: 'var(--land-edge)' },
          { from: whole, wide: over, fill: 'url(#strip-redemption)', edge: 'var(--caution)' },
        ].map(
          ({ from, wide, fill, edge }) =>
            wide > 0 && (
              <rect
                key={fill}
                x={from + 0.5}
                y={top + 0.5}
                width={Math.max(1, wide - 1)}
                height={BAR - 1}
                fill={fill}
                stroke={edge}
              />
            ),
        )}
        <path d={`M${whole} ${top - 6}V${top + BAR + 6}`} stroke="var(--ink)" strokeWidth="2" />
      </svg>
    </div>
  );
}

/** Where a budget ends, how much of it is spent, and how much more is, in pixels of `width`. */
export function budgetParts(budgetMinor: number, spentMinor: number, width: number) {
  const most = Math.max(1, budgetMinor, spentMinor);
  const x = (minor: number) => Math.round((Math.max(0, minor) / most) * (width - 2));
  const whole = x(budgetMinor);
  return { whole, land: x(Math.min(budgetMinor, spentMinor)), over: Math.max(0, x(spentMinor) - whole) };
}
