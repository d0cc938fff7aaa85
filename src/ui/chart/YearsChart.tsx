'use client';
import { Chart, type ChartOptions, type Plugin } from 'chart.js';
import { useEffect, useRef } from 'react';
import { currencyDigits } from '@/core/money';
import { formatAmount, formatFigure } from '@/ui/text/figures';
import { ChartFrame, drawn, token } from './timeChart';

/** One line: what something comes to over 1, 2, 3 … years, in minor units; `null` where it is not known. */
export interface YearsLine {
  readonly label: string;
  readonly totals: readonly (number | null)[];
}

/** Where two lines meet. */
export interface YearsMark {
  readonly years: number;
  readonly minor: number;
}

/** Each line has a colour and a pattern of its own; both repeat only beyond five. */
const STROKES = [
  { colour: '--bearing', dash: [] },
  { colour: '--land-edge', dash: [7, 3] },
  { colour: '--ink', dash: [2, 3] },
  { colour: '--shoal-edge', dash: [9, 3, 2, 3] },
  { colour: '--ink-soft', dash: [4, 4] },
] as const;

const LABEL_GAP = 13;
const LABEL_ROOM = 118;

/** Writes each line's name at its end, the names apart from each other. */
const endLabels = (lines: readonly YearsLine[], colours: readonly string[]): Plugin<'line'> => ({
  id: 'end labels',
  afterDatasetsDraw(chart) {
    const { ctx, chartArea } = chart;
    const ends = lines
      .flatMap(({ label, totals }, i) => {
        const last = totals.findLastIndex((total) => total !== null);
        const point = chart.getDatasetMeta(i).data[last];
        return point ? [{ label, y: point.y, colour: colours[i] ?? '' }] : [];
      })
      .sort((a, b) => a.y - b.y);
    ctx.save();
    ctx.font = `11px ${getComputedStyle(document.body).fontFamily}`;
    ctx.textBaseline = 'middle';
    let least = chartArea.top;
    for (const { label, y, colour } of ends) {
      const at = Math.max(y, least);
      least = at + LABEL_GAP;
      ctx.fillStyle = colour;
      ctx.fillText(label, chartArea.right + 6, at, LABEL_ROOM - 10);
    }
    ctx.restore();
  },
});

/** Years along, money up, room at the right for the names of the lines. */
function yearsOptions(currency: string): ChartOptions<'line'> {
  const grid = { color: token('--rule') };
  const ticks = { color: token('--ink-soft'), font: { family: getComputedStyle(document.body).fontFamily, size: 11 } };
  const scale = 10 ** currencyDigits(currency);
  return {
    animation: false,
    responsive: true,
    maintainAspectRatio: false,
    layout: { padding: { right: LABEL_ROOM } },
    interaction: { mode: 'nearest', axis: 'x', intersect: false },
    scales: {
      x: {
        type: 'linear',
        min: 1,
        max: 10,
        grid,
        ticks: { ...ticks, stepSize: 1, maxRotation: 0, callback: (value) => `${value}` },
        title: { display: true, text: 'years', color: ticks.color, font: ticks.font },
      },
      y: {
        beginAtZero: true,
        grid,
        ticks: {
          ...ticks,
          callback: (value) => formatFigure({ minor: Math.round(Number(value) * scale), currency }, true),
        },
      },
    },
    plugins: {
      tooltip: {
        callbacks: {
          title: ([item]) => (item ? `${item.parsed.x} ${item.parsed.x === 1 ? 'year' : 'years'}` : ''),
          label: ({ dataset, parsed }) =>
            parsed.y === null
              ? ''
              : `${dataset.label ?? ''} ${formatAmount({ minor: Math.round(parsed.y * scale), currency })}`,
        },
      },
    },
  };
}

interface YearsChartProps {
  readonly lines: readonly YearsLine[];
  readonly marks: readonly YearsMark[];
  readonly currency: string;
  readonly label: string;
}

/** Totals year by year, a line each, crossings marked by a ring. The same figures stand in the table beside it. */
export function YearsChart({ lines, marks, currency, label }: YearsChartProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const place = canvas.current;
    if (!place) return;
    const strokes = lines.map((_, i) => STROKES[i % STROKES.length] ?? STROKES[0]);
    const colours = strokes.map(({ colour }) => token(colour));
    const chart = new Chart(place, {
      type: 'line',
      plugins: [endLabels(lines, colours)],
      options: yearsOptions(currency),
      data: {
        datasets: [
          ...lines.map(({ label: name, totals }, i) => ({
            label: name,
            data: totals.map((minor, n) => ({ x: n + 1, y: minor === null ? null : drawn(minor, currency) })),
            borderColor: colours[i] ?? '',
            borderDash: [...(strokes[i]?.dash ?? [])],
            borderWidth: 1.6,
            pointRadius: 0,
            pointHitRadius: 6,
          })),
          {
            label: 'the same at',
            data: marks.map(({ years, minor }) => ({ x: years, y: drawn(minor, currency) })),
            showLine: false,
            pointStyle: 'circle' as const,
            pointRadius: 5,
            borderColor: token('--caution'),
            backgroundColor: 'transparent',
            borderWidth: 1.6,
          },
        ],
      },
    });
    return () => chart.destroy();
  }, [lines, marks, currency]);
  return (
    <ChartFrame>
      <canvas ref={canvas} role="img" aria-label={label} />
    </ChartFrame>
  );
}
