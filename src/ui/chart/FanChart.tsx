'use client';
import { Chart, type ChartDataset, type ChartOptions, Filler, type Plugin } from 'chart.js';
import { useEffect, useRef, useState } from 'react';
import { currencyDigits } from '@/core/money';
import { formatMonth, type Month } from '@/core/time';
import { formatAmount, formatFigure } from '@/ui/text/figures';
import { type ShareLine, ShareLines } from './ShareLines';
import { ChartFrame, drawn, token } from './timeChart';

Chart.register(Filler);

/** The lines of one fan, from the lowest up: the balance below which 5, 25, 50, 75, 95 percent of the paths lie. Minor units. */
export interface FanLines {
  readonly label: string;
  readonly lines: readonly (readonly number[])[];
}

interface FanChartProps {
  readonly months: readonly Month[];
  readonly fan: FanLines;
  /** The middle line of other strategies. */
  readonly others: readonly FanLines[];
  /** What is certain to be paid in each month, minor units. */
  readonly costs: readonly number[];
  /** What really came, as far as it is known. */
  readonly actual?: readonly (number | null)[];
  readonly floorMinor: number;
  readonly currency: string;
  readonly label: string;
  /** Shares of the paths by month, drawn under the fan. */
  readonly shares?: readonly ShareLine[];
  readonly chosen: number | null;
  readonly onChoose?: (month: number) => void;
}

const NAMES = ['one in twenty is lower', 'one in four', 'half', 'one in four is higher', 'one in twenty'] as const;

/** Names at the right end of the lines, over each other where they would touch. */
function endNames(named: readonly { readonly place: number; readonly text: string }[]): Plugin<'line'> {
  return {
    id: 'fan names',
    afterDatasetsDraw(chart) {
      const { ctx, chartArea } = chart;
      ctx.save();
      ctx.font = `11px ${getComputedStyle(document.body).fontFamily}`;
      ctx.textBaseline = 'middle';
      ctx.fillStyle = token('--ink');
      const ends = named
        .flatMap(({ place, text }) => {
          const y = chart.getDatasetMeta(place).data.at(-1)?.y;
          return y === undefined ? [] : [{ text, y }];
        })
        .sort((a, b) => a.y - b.y);
      let least = chartArea.top;
      for (const { text, y } of ends) {
        const at = Math.max(y, least);
        least = at + 14;
        ctx.fillText(text, chartArea.right + 7, at);
      }
      ctx.restore();
    },
  };
}

/** A line under the month that is pointed at. */
function chosenMonth(chosen: { readonly current: number | null }): Plugin<'line'> {
  return {
    id: 'chosen month',
    beforeDatasetsDraw(chart) {
      const x = chosen.current === null ? undefined : chart.getDatasetMeta(2).data[chosen.current]?.x;
      if (x === undefined) return;
      chart.ctx.save();
      chart.ctx.fillStyle = token('--ink');
      chart.ctx.fillRect(x - 0.5, chart.chartArea.top, 1, chart.chartArea.bottom - chart.chartArea.top);
      chart.ctx.restore();
    },
  };
}

/** The room beside the lines, so that what stands below can stand under them. */
interface Area {
  readonly left: number;
  readonly right: number;
}

function areaOf(tell: (change: (before: Area) => Area) => void): Plugin<'line'> {
  return {
    id: 'area',
    afterLayout({ chartArea, width }) {
      const now = { left: Math.round(chartArea.left), right: Math.round(width - chartArea.right) };
      tell((before) => (before.left === now.left && before.right === now.right ? before : now));
    },
  };
}

/** Lines that bound bands: a band is drawn from a line to the one before it. */
function bands(lines: FanLines['lines'], currency: string): ChartDataset<'line'>[] {
  const line = (i: number, fill: string | null, width: number): ChartDataset<'line'> => ({
    label: NAMES[i] ?? '',
    data: (lines[i] ?? []).map((minor, x) => ({ x, y: drawn(minor, currency) })),
    borderColor: i === 2 ? token('--bearing') : token('--shoal-edge'),
    borderWidth: width,
    pointRadius: 0,
    pointHitRadius: 0,
    ...(fill ? { fill: '-1', backgroundColor: fill } : {}),
  });
  return [
    line(0, null, 0.5),
    line(1, token('--shoal-pale'), 0.5),
    line(2, token('--shoal'), 2),
    line(3, token('--shoal'), 0.5),
    line(4, token('--shoal-pale'), 0.5),
  ];
}

const plainLine = (
  label: string,
  values: readonly (number | null)[],
  currency: string,
  colour: string,
  dash: number[],
): ChartDataset<'line'> => ({
  label,
  data: values.map((minor, x) => ({ x, y: minor === null ? null : drawn(minor, currency) })),
  borderColor: colour,
  borderDash: dash,
  borderWidth: 1.6,
  pointRadius: 0,
  pointHitRadius: 0,
});

/** Months along, money up, room at the right for the names of the lines. */
function fanOptions(
  months: readonly Month[],
  currency: string,
  hasOthers: boolean,
  onPoint: (month: number) => void,
): ChartOptions<'line'> {
  const soft = token('--ink-soft');
  const font = { family: getComputedStyle(document.body).fontFamily, size: 11 };
  const grid = { color: token('--rule') };
  const scale = 10 ** currencyDigits(currency);
  const figure = (value: number | string) => formatFigure({ minor: Math.round(Number(value) * scale), currency }, true);
  return {
    animation: false,
    responsive: true,
    maintainAspectRatio: false,
    layout: { padding: { right: hasOthers ? 150 : 44 } },
    interaction: { mode: 'index', axis: 'x', intersect: false },
    onHover: (_, elements) => {
      const month = elements[0]?.index;
      if (month !== undefined) onPoint(month);
    },
    scales: {
      x: {
        type: 'linear',
        min: 0,
        max: Math.max(1, months.length - 1),
        grid,
        ticks: {
          color: soft,
          font,
          maxRotation: 0,
          stepSize: months.length > 60 ? 12 : months.length > 24 ? 6 : 3,
          callback: (value) => (months[Number(value)] ? formatMonth(months[Number(value)] as Month) : ''),
        },
      },
      y: { grid, ticks: { color: soft, font, callback: figure } },
    },
    plugins: {
      tooltip: {
        callbacks: {
          title: ([item]) => (item ? formatMonth(months[item.dataIndex] as Month) : ''),
          label: ({ dataset, parsed }) =>
            parsed.y === null
              ? ''
              : `${dataset.label}: ${formatAmount({ minor: Math.round(parsed.y * scale), currency }, true)}`,
        },
      },
    },
  };
}

/** The balance by month as a fan: half of all paths in the dark band, nine in ten in both. What is certain to be charged hangs below it on a scale of its own. */
export function FanChart(props: FanChartProps) {
  const { months, fan, others, costs, actual, shares = [], floorMinor, currency, label, chosen, onChoose } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const drawnChart = useRef<{ draw(): void } | null>(null);
  const choose = useRef(onChoose);
  choose.current = onChoose;
  const month = useRef(chosen);
  const [area, setArea] = useState({ left: 52, right: 44 });
  useEffect(() => {
    month.current = chosen;
    drawnChart.current?.draw();
  }, [chosen]);
  useEffect(() => {
    const place = canvas.current;
    if (!place) return;
    const dashes = [
      [5, 3],
      [2, 2],
      [8, 3, 2, 3],
      [1, 3],
      [10, 2],
    ];
    const middles = others.map(({ label: name, lines }, i) =>
      plainLine(name, lines[2] ?? [], currency, token('--ink'), dashes[i % dashes.length] ?? []),
    );
    const datasets = [
      ...bands(fan.lines, currency),
      ...middles,
      plainLine(
        'floor',
        months.map(() => floorMinor),
        currency,
        token('--caution'),
        [3, 3],
      ),
      ...(actual ? [plainLine('what came', actual, currency, token('--ink'), [])] : []),
    ];
    const chart = new Chart(place, {
      type: 'line',
      plugins: [
        chosenMonth(month),
        areaOf(setArea),
        endNames([
          ...[0, 1, 2, 3, 4].map((i) => ({ place: i, text: `${[5, 25, 50, 75, 95][i]} %` })),
          ...others.map(({ label: name }, i) => ({ place: 5 + i, text: name })),
        ]),
      ],
      data: { datasets },
      options: fanOptions(months, currency, others.length > 0, (at) => choose.current?.(at)),
    });
    drawnChart.current = chart;
    return () => {
      drawnChart.current = null;
      chart.destroy();
    };
  }, [months, fan, others, actual, floorMinor, currency]);
  return (
    <>
      <ChartFrame style={{ height: 300 }}>
        <canvas ref={canvas} role="img" aria-label={label} />
      </ChartFrame>
      <CostBars months={months} costs={costs} currency={currency} area={area} chosen={chosen} />
      {shares.length > 0 && <ShareLines months={months} lines={shares} area={area} chosen={chosen} />}
    </>
  );
}

/** What is certain to be paid each month, hanging below the fan on a scale of its own. */
function CostBars({
  months,
  costs,
  currency,
  area,
  chosen,
}: {
  months: readonly Month[];
  costs: readonly number[];
  currency: string;
  area: Area;
  chosen: number | null;
}) {
  const most = Math.max(1, ...costs);
  const width = 1000;
  const step = width / Math.max(1, months.length);
  return (
    <figure style={{ margin: `2px ${area.right}px 0 ${area.left}px` }}>
      <svg
        viewBox={`0 0 ${width} 46`}
        preserveAspectRatio="none"
        width="100%"
        height="46"
        role="img"
        aria-label={`What is charged each month if nothing sells: at the most ${formatAmount({ minor: most, currency }, true)}`}
      >
        {costs.map((minor, month) => (
          <rect
            key={months[month]}
            x={month * step + step * 0.12}
            y={0}
            width={step * 0.76}
            height={Math.max(minor > 0 ? 1 : 0, (44 * minor) / most)}
            fill={month === chosen ? 'var(--ink)' : 'var(--land)'}
            stroke="var(--land-edge)"
            strokeWidth={1}
            vectorEffect="non-scaling-stroke"
          />
        ))}
      </svg>
      <figcaption className="soft" style={{ fontSize: '0.86rem' }}>
        Charged each month if nothing sells, {formatAmount({ minor: most, currency }, true)} at the most
      </figcaption>
    </figure>
  );
}
