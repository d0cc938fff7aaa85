'use client';
import { Chart } from 'chart.js';
import { useEffect, useRef } from 'react';
import type { Instant } from '@/core/time';
import { formatAmount } from '@/ui/text/figures';
import { ChartFrame, drawn, lineLabels, timeOptions, token } from './timeChart';

/** The balance after a charge, or the charge that finds too little. */
export interface BalancePoint {
  readonly at: Instant;
  readonly balanceMinor: number;
  readonly fails: boolean;
  readonly text: string;
}

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
    const xy = (list: readonly BalancePoint[]) =>
      list.map((point) => ({ x: point.at, y: drawn(point.balanceMinor, currency) }));
    const failing = points.filter((point) => point.fails);
    const options = timeOptions(currency, from, to, (item) => {
      const list = item.dataset.label === 'fails' ? failing : points;
      const point = list[item.dataIndex];
      return point ? `${point.text}, balance ${formatAmount({ minor: point.balanceMinor, currency })}` : '';
    });
    const chart = new Chart(place, {
      type: 'line',
      // One line needs no name but its own; two are told apart where they end.
      plugins: [lineLabels(before.length > 0 ? ['balance then', 'as it is', null] : ['balance', null])],
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
    <ChartFrame>
      <canvas ref={canvas} role="img" aria-label={label} />
    </ChartFrame>
  );
}
