import { formatMonth, type Month } from '@/core/time';
import { shareWords } from '../text/prospectWords';

/** A share of all paths, month by month, 0 to 1. */
export interface ShareLine {
  readonly text: string;
  readonly shares: readonly number[];
  /** Draws it as what loses money. */
  readonly isGrave: boolean;
}

const WIDTH = 1000;
const HEIGHT = 74;

/** Shares of the paths over the months, under the same months as the fan above: each line says what it is and where it ends. */
export function ShareLines({
  months,
  lines,
  area,
  chosen,
}: {
  months: readonly Month[];
  lines: readonly ShareLine[];
  area: { readonly left: number; readonly right: number };
  chosen: number | null;
}) {
  const x = (month: number) => (month / Math.max(1, months.length - 1)) * WIDTH;
  const y = (share: number) => 3 + (HEIGHT - 6) * (1 - share);
  const ends = lines.map(({ text, shares }) => `${text} ${shareWords(shares.at(-1) ?? 0)}`).join(', ');
  return (
    <figure style={{ margin: `6px ${area.right}px 0 ${area.left}px` }}>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        preserveAspectRatio="none"
        width="100%"
        height={HEIGHT}
        role="img"
        aria-label={`By ${months.length > 0 ? formatMonth(months[months.length - 1] as Month) : 'now'}: ${ends} of the paths`}
      >
        {[0, 0.5, 1].map((share) => (
          <line
            key={share}
            x1={0}
            x2={WIDTH}
            y1={y(share)}
            y2={y(share)}
            stroke="var(--rule)"
            vectorEffect="non-scaling-stroke"
          />
        ))}
        {lines.map(({ text, shares, isGrave }) => (
          <polyline
            key={text}
            points={shares.map((share, month) => `${x(month)},${y(share)}`).join(' ')}
            fill="none"
            stroke={isGrave ? 'var(--caution)' : 'var(--ink-soft)'}
            strokeWidth={1.6}
            strokeDasharray={isGrave ? undefined : '4 3'}
            vectorEffect="non-scaling-stroke"
          />
        ))}
        {chosen !== null && (
          <line
            x1={x(chosen)}
            x2={x(chosen)}
            y1={0}
            y2={HEIGHT}
            stroke="var(--ink)"
            vectorEffect="non-scaling-stroke"
          />
        )}
      </svg>
      <figcaption className="soft" style={{ fontSize: '0.86rem', display: 'flex', flexWrap: 'wrap', gap: '2px 18px' }}>
        <span>Share of the paths, 0 to 100 %:</span>
        {lines.map(({ text, shares, isGrave }) => (
          <span key={text} className={isGrave ? 'caution' : undefined}>
            {isGrave ? '──' : '╌╌'} {text}, {shareWords(shares.at(-1) ?? 0)} at the end
          </span>
        ))}
      </figcaption>
    </figure>
  );
}
