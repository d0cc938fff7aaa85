import {
  Chart,
  type ChartOptions,
  LinearScale,
  LineController,
  LineElement,
  type Plugin,
  PointElement,
  Tooltip,
} from 'chart.js';
import styled from 'styled-components';
import { currencyDigits } from '@/core/money';
import { DAY_MS, dayOf, formatDay, formatMonth, type Instant, type Month } from '@/core/time';
import { formatFigure } from '@/ui/text/figures';

Chart.register(LineController, LineElement, PointElement, LinearScale, Tooltip);

/** Where a chart stands. Its figures are in a table beside it, which is what a screen reader is sent to. */
export const ChartFrame = styled.figure`
  margin: 0;
  height: 230px;
  position: relative;
  @media print { break-inside: avoid; }
`;

/** A colour of the theme as it is now. */
export const token = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** The hatching of what loses a name, for a canvas: the same as on a life strip. */
export function hatching(): CanvasPattern | string {
  const tile = document.createElement('canvas');
  tile.width = 8;
  tile.height = 8;
  const paint = tile.getContext('2d');
  if (!paint) return token('--caution');
  paint.fillStyle = token('--caution-pale');
  paint.fillRect(0, 0, 8, 8);
  paint.strokeStyle = token('--caution');
  paint.lineWidth = 1.2;
  paint.stroke(new Path2D('M0 8L8 0M0 0L8 8'));
  return paint.createPattern(tile, 'repeat') ?? token('--caution');
}

/** The beginnings of months between two instants (UTC), at most `most` of them, evenly apart: what an axis of days is marked by. */
export function monthTicks(from: Instant, to: Instant, most = 12): Instant[] {
  const first = new Date(from);
  const all: Instant[] = [];
  for (let month = first.getUTCMonth() + 1; ; month += 1) {
    const at = Date.UTC(first.getUTCFullYear(), month, 1) as Instant;
    if (at > to) break;
    all.push(at);
  }
  const every = Math.max(1, Math.ceil(all.length / most));
  return all.filter((_, place) => place % every === 0);
}

/** Writes what each line is at its end, over the line: no legend has to be read beside it. `named` says which lines have a name. */
export function lineLabels(named: readonly (string | null)[]): Plugin<'line'> {
  return {
    id: 'line labels',
    afterDatasetsDraw(chart) {
      const { ctx, chartArea } = chart;
      ctx.save();
      ctx.font = `11px ${getComputedStyle(document.body).fontFamily}`;
      ctx.textAlign = 'right';
      ctx.lineWidth = 3;
      ctx.strokeStyle = token('--sheet');
      for (const [place, name] of named.entries()) {
        const end = chart.getDatasetMeta(place).data.at(-1);
        const colour = chart.data.datasets[place]?.borderColor;
        if (name === null || !end || typeof colour !== 'string') continue;
        const y = Math.max(chartArea.top + 12, end.y - 5);
        ctx.strokeText(name, chartArea.right - 4, y);
        ctx.fillStyle = colour;
        ctx.fillText(name, chartArea.right - 4, y);
      }
      ctx.restore();
    },
  };
}

/** Minor units as they are drawn. */
export const drawn = (minor: number, currency: string) => minor / 10 ** currencyDigits(currency);

type Label = NonNullable<NonNullable<NonNullable<ChartOptions<'line'>['plugins']>['tooltip']>['callbacks']>['label'];

/** Money over time: days along, figures up, nothing that moves. `label` says what a point means. */
export function timeOptions(
  currency: string,
  from: Instant,
  to: Instant,
  label: NonNullable<Label>,
): ChartOptions<'line'> {
  const grid = { color: token('--rule') };
  const ticks = {
    color: token('--ink-soft'),
    font: { family: getComputedStyle(document.body).fontFamily, size: 11 },
  };
  return {
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
        // Even ticks where months begin; in a range without two of them, the axis chooses days of its own.
        afterBuildTicks: (axis) => {
          const months = monthTicks(from, to);
          if (months.length > 1) axis.ticks = months.map((value) => ({ value }));
        },
        ticks: {
          ...ticks,
          maxTicksLimit: 12,
          maxRotation: 0,
          callback: (value) => {
            const day = dayOf(Number(value) as Instant);
            return day.endsWith('-01') && to - from > 62 * DAY_MS
              ? formatMonth(day.slice(0, 7) as Month).replace(/ (\d{4})$/, day.slice(5, 7) === '01' ? ' $1' : '')
              : formatDay(day).replace(/ \d{4}$/, '');
          },
        },
      },
      y: {
        beginAtZero: true,
        grid,
        ticks: {
          ...ticks,
          callback: (value) =>
            formatFigure({ minor: Math.round(Number(value) * 10 ** currencyDigits(currency)), currency }, true),
        },
      },
    },
    plugins: {
      tooltip: {
        callbacks: {
          title: ([item]) => (item ? formatDay(dayOf((item.parsed.x ?? 0) as Instant)) : ''),
          label,
        },
      },
    },
  };
}
