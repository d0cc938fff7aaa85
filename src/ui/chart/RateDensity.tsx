import { gammaDensity, type RateSpread, type SaleRate } from '@/core/odds';

const WIDTH = 120;
const HEIGHT = 26;
const POINTS = 60;

/** How likely a group's rate of sale is held to be, from 0 to `most` sales in a name-year: a hill of land, its mean a line. */
export function RateDensity({
  rate,
  spread,
  most,
  label,
}: {
  rate: SaleRate;
  spread: RateSpread;
  most: number;
  label: string;
}) {
  const heights = Array.from({ length: POINTS + 1 }, (_, i) =>
    gammaDensity(((i + 0.5) / (POINTS + 1)) * most, rate.sales, rate.nameYears),
  );
  const top = Math.max(...heights, Number.MIN_VALUE);
  const x = (share: number) => (Math.min(share, most) / most) * WIDTH;
  const hill = heights
    .map((height, i) => `${(i / POINTS) * WIDTH},${HEIGHT - (HEIGHT - 3) * (height / top)}`)
    .join(' ');
  return (
    <svg width={WIDTH} height={HEIGHT + 1} role="img" aria-label={label}>
      <polygon
        points={`0,${HEIGHT} ${hill} ${WIDTH},${HEIGHT}`}
        fill="var(--land)"
        stroke="var(--land-edge)"
        strokeWidth={0.8}
      />
      <line x1={x(spread.mean)} x2={x(spread.mean)} y1={0} y2={HEIGHT} stroke="var(--ink)" strokeWidth={1.4} />
      <line x1={0} x2={WIDTH} y1={HEIGHT + 0.5} y2={HEIGHT + 0.5} stroke="var(--rule)" />
    </svg>
  );
}
