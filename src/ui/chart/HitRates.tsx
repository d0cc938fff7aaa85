import type { HitRate } from '@/core/prospects';
import { shareWords } from '../text/prospectWords';

const SIZE = 300;
const EDGE = 40;

/** What was said against what was seen: on the line all came true as it was said; a bar is where the true share lies with nine chances in ten. */
export function HitRates({ rates, label }: { rates: readonly HitRate[]; label: string }) {
  const most = Math.min(1, Math.max(0.05, ...rates.map(({ said, high }) => Math.max(said, high))) * 1.1);
  const x = (share: number) => EDGE + (SIZE * share) / most;
  const y = (share: number) => 8 + SIZE - (SIZE * share) / most;
  const ticks = [0, 0.25, 0.5, 0.75, 1].map((share) => share * most);
  return (
    <svg width={SIZE + EDGE + 16} height={SIZE + 44} role="img" aria-label={label} style={{ maxWidth: '100%' }}>
      {ticks.map((share) => (
        <g key={share} fill="var(--ink-soft)" fontSize={11}>
          <line x1={EDGE} x2={EDGE + SIZE} y1={y(share)} y2={y(share)} stroke="var(--rule)" />
          <text x={EDGE - 6} y={y(share) + 4} textAnchor="end">
            {shareWords(share)}
          </text>
          <text x={x(share)} y={SIZE + 24} textAnchor="middle">
            {shareWords(share)}
          </text>
        </g>
      ))}
      <line x1={x(0)} y1={y(0)} x2={x(most)} y2={y(most)} stroke="var(--ink-soft)" strokeDasharray="4 3" />
      {rates.map(({ from, said, seen, low, high }) => (
        <g key={from}>
          <line
            x1={x(said)}
            x2={x(said)}
            y1={y(low)}
            y2={y(high)}
            stroke="var(--land-edge)"
            strokeWidth={5}
            opacity={0.6}
          />
          <circle cx={x(said)} cy={y(seen)} r={4.5} fill="var(--ink)" />
        </g>
      ))}
      <text x={EDGE + SIZE / 2} y={SIZE + 40} textAnchor="middle" fontSize={11} fill="var(--ink-soft)">
        said
      </text>
      <text x={EDGE + 4} y={18} fontSize={11} fill="var(--ink-soft)">
        seen
      </text>
    </svg>
  );
}
