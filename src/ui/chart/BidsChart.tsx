'use client';
import {
  Chart,
  type ChartDataset,
  type ChartOptions,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js';
import { useEffect, useRef } from 'react';
import styled from 'styled-components';
import { currencyDigits, formatAmount, formatFigure } from '@/core/money';
import { dayOf, formatDay, type Instant } from '@/core/time';

Chart.register(LineController, LineElement, PointElement, LinearScale, Tooltip);

/** The price that stood after a bid. */
export interface BidPoint {
  readonly at: Instant;
  readonly minor: number;
  readonly bidder: string;
}

const Frame = styled.figure`margin: 0; height: 240px; max-width: 860px; position: relative;`;
const token = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** The price of an auction over time as steps, with lines that do not move: reserve, and what leaves no loss. The bids stand in a table too. */
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
    const unit = 10 ** currencyDigits(currency);
    const grid = { color: token('--rule') };
    const ticks = {
      color: token('--ink-soft'),
      font: { family: getComputedStyle(document.body).fontFamily, size: 11 },
    };
    const last = points.at(-1);
    const options: ChartOptions<'line'> = {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      interaction: { mode: 'nearest', axis: 'x', intersect: false },
      scales: {
        x: {
          type: 'linear',
          min: from,
          max: to,
          grid,
          ticks: {
            ...ticks,
            maxTicksLimit: 8,
            callback: (value) => formatDay(dayOf(Number(value) as Instant)).replace(/ \d{4}$/, ''),
          },
        },
        y: {
          beginAtZero: true,
          grid,
          ticks: {
            ...ticks,
            callback: (value) => formatFigure({ minor: Math.round(Number(value) * unit), currency }, true),
          },
        },
      },
      plugins: {
        tooltip: {
          callbacks: {
            title: ([item]) => (item ? formatDay(dayOf((item.parsed.x ?? 0) as Instant)) : ''),
            label: (item) => {
              const point = item.datasetIndex === 0 ? points[item.dataIndex] : null;
              if (point) return `${formatAmount({ minor: point.minor, currency }, true)}, ${point.bidder}`;
              return lines[item.datasetIndex - 1]?.text ?? '';
            },
          },
        },
      },
    };
    const price: ChartDataset<'line'> = {
      label: 'price',
      data: [
        ...points.map(({ at, minor }) => ({ x: at, y: minor / unit })),
        ...(last ? [{ x: until, y: last.minor / unit }] : []),
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
      options,
      data: {
        datasets: [
          price,
          ...lines.map(
            ({ text, minor, isLoss }): ChartDataset<'line'> => ({
              label: text,
              data: [
                { x: from, y: minor / unit },
                { x: to, y: minor / unit },
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
    <Frame>
      <canvas ref={canvas} role="img" aria-label={label} />
    </Frame>
  );
}
