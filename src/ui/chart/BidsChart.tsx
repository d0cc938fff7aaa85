'use client';
import { Chart, type ChartDataset } from 'chart.js';
import { useEffect, useRef } from 'react';
import type { Instant } from '@/core/time';
import { formatAmount } from '@/ui/text/figures';
import { ChartFrame, drawn, lineLabels, timeOptions, token } from './timeChart';

/** The price that stood after a bid. */
export interface BidPoint {
  readonly at: Instant;
  readonly minor: number;
  readonly bidder: string;
}

/** The price of an auction over time as steps, with lines that do not move: reserve, and the least without a loss. The bids stand in a table too. */
export function BidsChart({
  points,
  lines,
  currency,
  from,
  to,
  until,
  label,
}: {
  points: readonly BidPoint[];
  lines: readonly { readonly text: string; readonly minor: number; readonly isLoss: boolean }[];
  currency: string;
  from: Instant;
  to: Instant;
  /** Up to when the price is known. */
  until: Instant;
  label: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const place = canvas.current;
    if (!place) return;
    const last = points.at(-1);
    const options = timeOptions(currency, from, to, (item) => {
      const point = item.datasetIndex === 0 ? points[item.dataIndex] : null;
      if (point) return `${formatAmount({ minor: point.minor, currency }, true)}, ${point.bidder}`;
      return lines[item.datasetIndex - 1]?.text ?? '';
    });
    const price: ChartDataset<'line'> = {
      label: 'price',
      data: [
        ...points.map(({ at, minor }) => ({ x: at, y: drawn(minor, currency) })),
        ...(last ? [{ x: until, y: drawn(last.minor, currency) }] : []),
      ],
      stepped: 'before',
      // The last place is only where the line ends.
      pointRadius: [...points.map(() => 3), 0],
      borderColor: token('--bearing'),
      backgroundColor: token('--bearing'),
      borderWidth: 2,
    };
    const chart = new Chart(place, {
      type: 'line',
      plugins: [lineLabels([null, ...lines.map(({ text }) => text)])],
      options,
      data: {
        datasets: [
          price,
          ...lines.map(
            ({ text, minor, isLoss }): ChartDataset<'line'> => ({
              label: text,
              data: [
                { x: from, y: drawn(minor, currency) },
                { x: to, y: drawn(minor, currency) },
              ],
              borderColor: token(isLoss ? '--caution' : '--land-edge'),
              borderDash: isLoss ? [3, 3] : [8, 4],
              borderWidth: 1.5,
              pointRadius: 0,
            }),
          ),
        ],
      },
    });
    return () => chart.destroy();
  }, [points, lines, currency, from, to, until]);
  return (
    <ChartFrame>
      <canvas ref={canvas} role="img" aria-label={label} />
    </ChartFrame>
  );
}
