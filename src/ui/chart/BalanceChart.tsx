'use client';
import {
  CategoryScale,
  Chart,
  type ChartOptions,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js';
import { useEffect, useRef } from 'react';
import styled from 'styled-components';
import { formatAmount, formatFigure } from '@/core/money';
import { dayOf, formatDay, type Instant } from '@/core/time';

Chart.register(LineController, LineElement, PointElement, LinearScale, CategoryScale, Tooltip);

/** The balance after a charge, or the charge that finds too little. */
export interface BalancePoint {
  readonly at: Instant;
  readonly balanceMinor: number;
  readonly fails: boolean;
  readonly text: string;
}

const Frame = styled.figure`
  margin: 0;
  height: 220px;
  max-width: 860px;
  position: relative;
  @media print { break-inside: avoid; }
`;

const token = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/**
 * A balance over time as steps, with every charge that fails marked by a cross. The same figures stand in the table beside
 * it, which is what a screen reader is sent to. `before` is the balance without a change that is only thought of.
 */
export function BalanceChart({
  points,
  before = [],
  currency,
  from,
  to,
  label,
}: {
  points: readonly BalancePoint[];
  before?: readonly BalancePoint[];
  currency: string;
  from: Instant;
  to: Instant;
  label: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const place = canvas.current;
    if (!place) return;
    const xy = (list: readonly BalancePoint[]) => list.map((point) => ({ x: point.at, y: point.balanceMinor / 100 }));
    const failing = points.filter((point) => point.fails);
    const grid = { color: token('--rule') };
    const ticks = {
      color: token('--ink-soft'),
      font: { family: getComputedStyle(document.body).fontFamily, size: 11 },
    };
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
            callback: (value) => formatFigure({ minor: Math.round(Number(value) * 100), currency }, true),
          },
        },
      },
      plugins: {
        tooltip: {
          callbacks: {
            title: ([item]) => (item ? formatDay(dayOf((item.parsed.x ?? 0) as Instant)) : ''),
            label: (item) => {
              const list = item.dataset.label === 'fails' ? failing : points;
              const point = list[item.dataIndex];
              return point ? `${point.text}, balance ${formatAmount({ minor: point.balanceMinor, currency })}` : '';
            },
          },
        },
      },
    };
    const chart = new Chart(place, {
      type: 'line',
      options,
      data: {
        datasets: [
          {
            label: 'balance',
            data: xy(points),
            stepped: 'before',
            borderColor: token('--bearing'),
            borderWidth: 1.5,
            pointRadius: 0,
            pointHitRadius: 6,
          },
          ...(before.length > 0
            ? [
                {
                  label: 'as it is',
                  data: xy(before),
                  stepped: 'before' as const,
                  borderColor: token('--ink-soft'),
                  borderDash: [4, 3],
                  borderWidth: 1,
                  pointRadius: 0,
                },
              ]
            : []),
          {
            label: 'fails',
            data: xy(failing),
            showLine: false,
            pointStyle: 'crossRot',
            pointRadius: 6,
            borderColor: token('--caution'),
            borderWidth: 2,
          },
        ],
      },
    });
    return () => chart.destroy();
  }, [points, before, currency, from, to]);
  return (
    <Frame>
      <canvas ref={canvas} role="img" aria-label={label} />
    </Frame>
  );
}
