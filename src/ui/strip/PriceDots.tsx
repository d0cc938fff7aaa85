'use client';
import { currencyDigits } from '@/core/money';
import { formatAmount } from '../text/figures';

/** One price that was paid. */
export interface PriceDot {
  readonly minor: number;
  readonly text: string;
  readonly isOwn: boolean;
}

const HEIGHT = 66;
const LINE = 34;
const EDGE = 12;

/** Powers of ten that hold all of some prices, in minor units. */
export function decadesOf(prices: readonly number[], unit: number): number[] {
  const known = prices.filter((minor) => minor > 0);
  if (known.length === 0) return [];
  const low = Math.floor(Math.log10(Math.min(...known) / unit));
  const high = Math.max(low + 1, Math.ceil(Math.log10(Math.max(...known) / unit)));
  return Array.from({ length: high - low + 1 }, (_, step) => 10 ** (low + step) * unit);
}

/** Prices as dots on one line, each power of ten as far from the next: what names went for, with the one at hand among them. */
export function PriceDots({
  dots,
  mark,
  currency,
  width,
}: {
  dots: readonly PriceDot[];
  mark: { readonly minor: number; readonly text: string } | null;
  currency: string;
  width: number;
}) {
  const unit = 10 ** currencyDigits(currency);
  const decades = decadesOf([...dots.map(({ minor }) => minor), ...(mark ? [mark.minor] : [])], unit);
  const [low, high] = [decades[0], decades.at(-1)];
  if (low === undefined || high === undefined) return null;
  const x = (minor: number) =>
    EDGE + ((Math.log10(minor) - Math.log10(low)) / (Math.log10(high) - Math.log10(low))) * (width - 2 * EDGE);
  const money = (minor: number) => formatAmount({ minor, currency }, true);
  const prices = dots.map(({ minor }) => minor).filter((minor) => minor > 0);
  const label =
    prices.length === 0
      ? 'No price is known.'
      : `${prices.length} prices from ${money(Math.min(...prices))} to ${money(Math.max(...prices))}${mark ? `; ${mark.text} ${money(mark.minor)}` : ''}`;
  return (
    <svg width={width} height={HEIGHT} role="img" aria-label={label} style={{ display: 'block' }} fontSize="11">
      <path d={`M${EDGE} ${LINE}H${width - EDGE}`} stroke="var(--rule)" strokeWidth="2" />
      {decades.map((minor, place) => (
        <g key={minor} transform={`translate(${x(minor)} 0)`}>
          <path d={`M0 ${LINE - 5}V${LINE + 5}`} stroke="var(--ink-soft)" />
          <text
            y={LINE + 20}
            textAnchor={place === 0 ? 'start' : place === decades.length - 1 ? 'end' : 'middle'}
            x={place === 0 ? -EDGE : place === decades.length - 1 ? EDGE : 0}
            fill="var(--ink-soft)"
          >
            {money(minor)}
          </text>
        </g>
      ))}
      {dots.map(({ minor, text, isOwn }, place) =>
        minor > 0 ? (
          <circle
            // biome-ignore lint/suspicious/noArrayIndexKey: a dot is known by its place
            key={place}
            cx={x(minor)}
            cy={LINE}
            r={isOwn ? 5 : 4}
            fill={isOwn ? 'var(--land)' : 'var(--shoal-pale)'}
            fillOpacity={0.8}
            stroke={isOwn ? 'var(--land-edge)' : 'var(--shoal-edge)'}
          >
            <title>{`${text}: ${money(minor)}${isOwn ? ', your own' : ''}`}</title>
          </circle>
        ) : null,
      )}
      {mark && mark.minor > 0 && (
        <g transform={`translate(${x(mark.minor)} 0)`} fill="var(--bearing)">
          <path d={`M-5 ${LINE - 15}h10l-5 9z`} />
          <text
            y={LINE - 19}
            textAnchor={x(mark.minor) < 60 ? 'start' : x(mark.minor) > width - 60 ? 'end' : 'middle'}
            fontWeight="650"
          >
            {mark.text} {money(mark.minor)}
          </text>
        </g>
      )}
    </svg>
  );
}
