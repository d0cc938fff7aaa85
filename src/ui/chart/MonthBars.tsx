'use client';
import { BarController, BarElement, CategoryScale, Chart, type ChartOptions, Legend } from 'chart.js';
import { useEffect, useRef } from 'react';
import { currencyDigits } from '@/core/money';
import { formatMonth, type Month } from '@/core/time';
import { formatAmount, formatFigure } from '@/ui/text/figures';
import { ChartFrame, drawn, hatching, token } from './timeChart';

Chart.register(BarController, BarElement, CategoryScale, Legend);

/** What is charged in one month, minor units: what passes, and what fails. */
export interface MonthBar {
  readonly month: Month;
  readonly passingMinor: number;
  readonly failingMinor: number;
}

/** Charges by month as bars: what passes solid, what fails cross-hatched on top. The same figures stand in a table beside it. */
export function MonthBars({
  months,
  currency,
  label,
}: {
  months: readonly MonthBar[];
  currency: string;
  label: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const place = canvas.current;
    if (!place) return;
    const bar = (name: string, of: (month: MonthBar) => number, look: Look) => ({
      label: name,
      data: months.map((month) => drawn(of(month), currency)),
      ...look,
      borderWidth: 1,
      maxBarThickness: 46,
    });
    const chart = new Chart(place, {
      type: 'bar',
      data: {
        labels: months.map(({ month }) => formatMonth(month)),
        datasets: [
          bar('pass', ({ passingMinor }) => passingMinor, {
            backgroundColor: token('--land'),
            borderColor: token('--land-edge'),
          }),
          bar('fail', ({ failingMinor }) => failingMinor, {
            backgroundColor: hatching(),
            borderColor: token('--caution'),
          }),
        ],
      },
      options: barOptions(months, currency),
    });
    return () => chart.destroy();
  }, [months, currency]);
  return (
    <ChartFrame>
      <canvas ref={canvas} role="img" aria-label={label} />
    </ChartFrame>
  );
}

interface Look {
  readonly backgroundColor: string | CanvasPattern;
  readonly borderColor: string;
}

function barOptions(months: readonly MonthBar[], currency: string): ChartOptions<'bar'> {
  const font = { family: getComputedStyle(document.body).fontFamily, size: 11 };
  const ticks = { color: token('--ink-soft'), font };
  return {
    animation: false,
    responsive: true,
    maintainAspectRatio: false,
    scales: {
      x: { stacked: true, grid: { display: false }, ticks: { ...ticks, maxRotation: 0, autoSkipPadding: 12 } },
      y: {
        stacked: true,
        beginAtZero: true,
        grid: { color: token('--rule') },
        ticks: {
          ...ticks,
          callback: (value) =>
            formatFigure({ minor: Math.round(Number(value) * 10 ** currencyDigits(currency)), currency }, true),
        },
      },
    },
    plugins: {
      legend: {
        position: 'top',
        align: 'end',
        labels: { color: token('--ink'), font, boxWidth: 14, boxHeight: 10 },
      },
      tooltip: {
        callbacks: {
          label: ({ dataset, dataIndex, datasetIndex }) => {
            const month = months[dataIndex];
            const minor = datasetIndex === 0 ? month?.passingMinor : month?.failingMinor;
            return `${dataset.label ?? ''}: ${formatAmount({ minor: minor ?? 0, currency })}`;
          },
        },
      },
    },
  };
}
