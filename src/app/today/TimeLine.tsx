'use client';
import { useRef } from 'react';
import styled from 'styled-components';
import { TODAY_DAYS } from '@/core/ledger';
import type { AgendaItem } from '@/core/selling';
import { addDays, type Instant } from '@/core/time';
import { PHASE_FILLS, placeOn, type StripScale } from '@/ui/strip/LifecycleStrip';
import { formatAmount } from '@/ui/text/figures';
import { useWidth } from '@/ui/text/useWidth';
import { amountsWords, type DayStyle, dayWords, deadlineFigures, dueWords, untilWords } from '@/ui/text/words';
import { useLedger } from '../frame/LedgerProvider';
import type { ChargeDayView, RowView, TodayView } from '../frame/views';

const Box = styled.div`min-width: 0; & svg { display: block; overflow: visible; }`;

const LEFT = 66;
const AXIS = 22;
const BAR_ROW = 19;
const LANE = 30;
const MOST_BARS = 6;
/** A day with its year, and what keeps it from the next. */
const ROOM_FOR_A_DAY = 84;
/** The sums at the end of a lane have their own column where there is room for one. */
const SUMS = 190;

/** The next days on one line of time: what is lost, which charges fail, what is charged, what waits for an answer. */
export function TimeLine({ view, offers }: { view: TodayView; offers: readonly AgendaItem[] }) {
  const { today, style, homeCurrency } = useLedger();
  const box = useRef<HTMLDivElement>(null);
  const whole = useWidth(box, 1060, 300);
  const isNarrow = whole < 700;
  const scale: StripScale = {
    from: today,
    to: addDays(today, TODAY_DAYS),
    width: whole - LEFT - (isNarrow ? 8 : SUMS),
  };
  const lost = view.lists.find(({ consequence }) => consequence === 'lost');
  const bars = (lost?.rows ?? []).slice(0, MOST_BARS);
  const more = (lost?.total ?? 0) - bars.length;
  const lostHigh = bars.length === 0 ? 0 : bars.length * BAR_ROW + (more > 0 ? 16 : 0) + 10;
  const fails = view.charges.filter(({ passes }) => !passes);
  const charged = view.charges.filter(({ passes }) => passes);
  const lanes = [
    { id: 'fails', is: fails.length > 0 },
    { id: 'charged', is: true },
    { id: 'answer', is: offers.length > 0 },
  ].filter(({ is }) => is);
  const laneTop = (id: string) => AXIS + lostHigh + lanes.findIndex((lane) => lane.id === id) * LANE;
  const height = AXIS + lostHigh + lanes.length * LANE;
  const label = `The next ${TODAY_DAYS} days: ${lost?.total ?? 0} names are lost, ${view.summary.fails} charges fail, ${view.summary.charges} charges pass for ${amountsWords(view.summary.charged)}, ${offers.length} offers lapse.`;
  return (
    <Box ref={box}>
      <svg width={whole} height={height} role="img" aria-label={label} fontSize="13">
        <g transform={`translate(${LEFT} 0)`}>
          <Weeks scale={scale} height={height} style={style} />
          {bars.map((row, place) => (
            <LostBar
              key={row.name.id}
              row={row}
              top={AXIS + 4 + place * BAR_ROW}
              {...{ scale, style, homeCurrency, whole }}
            />
          ))}
          {more > 0 && (
            <text x="4" y={AXIS + 4 + bars.length * BAR_ROW + 10} fill="var(--caution)">
              and {more.toLocaleString('en')} more
            </text>
          )}
          {lanes.map(({ id }) => (
            <path key={id} d={`M${-LEFT} ${laneTop(id) + 0.5}H${whole - LEFT}`} stroke="var(--rule)" />
          ))}
          <path d={`M${-LEFT} ${height - 0.5}H${whole - LEFT}`} stroke="var(--rule)" />
          {fails.length > 0 && <Fails days={fails} top={laneTop('fails')} {...{ scale, style, isNarrow }} />}
          <Charged
            days={charged}
            sum={amountsWords(view.summary.charged)}
            top={laneTop('charged')}
            {...{ scale, style, isNarrow }}
          />
          {offers.length > 0 && <Offers offers={offers} top={laneTop('answer')} {...{ scale, style, isNarrow }} />}
        </g>
        {bars.length > 0 && (
          <text x="0" y={AXIS + 16} fill="var(--ink)">
            lost
          </text>
        )}
        {lanes.map(({ id }) => (
          <text key={id} x="0" y={laneTop(id) + 20} fill="var(--ink)">
            {id}
          </text>
        ))}
        <path d={`M${LEFT} ${AXIS - 4}V${height}`} stroke="var(--ink)" strokeWidth="2" />
      </svg>
    </Box>
  );
}

/** Even ticks: every week from today, the months named where they begin. */
function Weeks({ scale, height, style }: { scale: StripScale; height: number; style: DayStyle }) {
  const weeks = Array.from({ length: Math.floor(TODAY_DAYS / 7) + 1 }, (_, week) => addDays(scale.from, week * 7));
  return weeks.map((at, week) => {
    const x = placeOn(scale, at);
    const every = Math.max(1, Math.ceil(ROOM_FOR_A_DAY / placeOn(scale, addDays(scale.from, 7))));
    return (
      <g key={at}>
        {week > 0 && <path d={`M${x} ${AXIS - 4}V${height}`} stroke="var(--rule)" />}
        {week % every === 0 && x < scale.width - 20 && (
          <text
            x={week === 0 ? 0 : x}
            y="12"
            textAnchor={week === 0 ? 'start' : 'middle'}
            fontSize="12"
            fill={week === 0 ? 'var(--ink)' : 'var(--ink-soft)'}
          >
            {week === 0 ? 'today' : dayWords(at, style)}
          </text>
        )}
      </g>
    );
  });
}

interface LaneProps {
  readonly scale: StripScale;
  readonly style: DayStyle;
  readonly top: number;
  readonly isNarrow: boolean;
}

function LostBar({
  row,
  top,
  scale,
  style,
  homeCurrency,
  whole,
}: Omit<LaneProps, 'isNarrow'> & { row: RowView; homeCurrency: string; whole: number }) {
  const { deadline, name, phase } = row;
  if (!deadline) return null;
  const x = placeOn(scale, deadline.at);
  const { fill, edge } = PHASE_FILLS[phase === 'late' || phase === 'redemption' ? phase : 'term'];
  const act = phase === 'redemption' ? 'restore' : phase === 'late' ? 'renew late' : 'renew';
  const told = `${act} ${deadlineFigures({ ...deadline, kind: 'charge' }, homeCurrency)}${deadline.kind === 'auction' ? ', then auctioned' : ''}`;
  const text = whole < 700 ? '' : told;
  const wide = name.unicode.length * 8 + text.length * 6.6;
  const isInside = x + 10 + wide > whole - LEFT;
  return (
    <g>
      <rect x="0.5" y={top + 0.5} width={Math.max(3, x - 1)} height={11} fill={fill} stroke={edge} />
      <path d={`M${x} ${top - 2}V${top + 14}`} stroke="var(--caution)" strokeWidth="3" />
      {isInside && <rect x={x - 16 - wide} y={top - 1} width={wide + 10} height={15} fill="var(--sheet)" />}
      <text x={isInside ? x - 10 : x + 9} y={top + 11} textAnchor={isInside ? 'end' : 'start'} fill="var(--caution)">
        <tspan className="name" fontWeight="650">
          {name.unicode}
        </tspan>{' '}
        {text}
      </text>
      <title>{`${name.unicode}: last day ${untilWords(deadline.at, style)}`}</title>
    </g>
  );
}

const named = ({ names, count }: ChargeDayView) =>
  `${names.join(', ')}${count > names.length ? ` and ${count - names.length} more` : ''}`;

function Fails({ days, top, scale, style, isNarrow }: LaneProps & { days: readonly ChargeDayView[] }) {
  const middle = top + LANE / 2;
  const count = days.reduce((sum, day) => sum + day.count, 0);
  return (
    <g>
      {days.map((day) => {
        const x = placeOn(scale, day.at);
        return (
          <g key={day.day} stroke="var(--caution)" strokeWidth="2" fill="var(--sheet)">
            <circle cx={x} cy={middle} r="6" />
            <path d={`M${x - 4} ${middle + 4}L${x + 4} ${middle - 4}`} />
            <title>{`${dayWords(day.at, style)}: ${named(day)}`}</title>
          </g>
        );
      })}
      {!isNarrow && (
        <text x={scale.width + 14} y={middle + 4} fill="var(--caution)" fontWeight="650">
          {count === 1 ? '1 charge' : `${count.toLocaleString('en')} charges`}
        </text>
      )}
    </g>
  );
}

function Charged({
  days,
  sum,
  top,
  scale,
  style,
  isNarrow,
}: LaneProps & { days: readonly ChargeDayView[]; sum: string }) {
  const middle = top + LANE / 2;
  const most = Math.max(1, ...days.map(({ worthMinor }) => worthMinor));
  return (
    <g>
      {days.map((day) => (
        <circle
          key={day.day}
          cx={placeOn(scale, day.at)}
          cy={middle}
          r={3 + 5 * Math.sqrt(day.worthMinor / most)}
          fill="var(--bearing)"
          stroke="var(--sheet)"
        >
          <title>{`${dayWords(day.at, style)}: ${amountsWords(day.amounts)}, ${named(day)}`}</title>
        </circle>
      ))}
      {!isNarrow && (
        <text x={scale.width + 14} y={middle + 4} fill="var(--ink)" fontWeight="650">
          {sum}
        </text>
      )}
    </g>
  );
}

function Offers({ offers, top, scale, style, isNarrow }: LaneProps & { offers: readonly AgendaItem[] }) {
  const middle = top + LANE / 2;
  const highest = offers.reduce<AgendaItem | null>(
    (best, item) => ((item.minor ?? 0) > (best?.minor ?? -1) ? item : best),
    null,
  );
  return (
    <g>
      {offers.map((item) => {
        const x = placeOn(scale, (item.by ?? scale.from) as Instant);
        return (
          <path
            key={`${item.ascii} ${item.by} ${item.minor}`}
            d={`M${x - 6} ${middle + 5}h12l-6 -11z`}
            fill="var(--land-edge)"
            stroke="var(--sheet)"
          >
            <title>{`${item.unicode}: ${item.who}${item.by === null ? '' : `, until ${dueWords(item.by, scale.from, style).day}`}`}</title>
          </path>
        );
      })}
      {!isNarrow && highest && highest.minor !== null && highest.currency !== null && (
        <text x={scale.width + 14} y={middle + 4} fill="var(--ink)">
          highest{' '}
          <tspan fontWeight="650">{formatAmount({ minor: highest.minor, currency: highest.currency }, true)}</tspan>
        </text>
      )}
    </g>
  );
}
