import { Chart, type ChartOptions, LinearScale, LineController, LineElement, PointElement, Tooltip } from 'chart.js';
import styled from 'styled-components';
import { currencyDigits } from '@/core/money';
import { dayOf, formatDay, type Instant } from '@/core/time';
import { formatFigure } from '@/ui/text/figures';

Chart.register(LineController, LineElement, PointElement, LinearScale, Tooltip);

/** Where a chart stands. Its figures are in a table beside it, which is what a screen reader is sent to. */
export const ChartFrame = styled.figure`
  margin: 0;
  height: 230px;
  max-width: 860px;
  position: relative;
  @media print { break-inside: avoid; }
`;

/** A colour of the theme as it is now. */
export const token = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

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
