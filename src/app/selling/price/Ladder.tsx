'use client';
import { type KeyboardEvent, type PointerEvent, type RefObject, useRef } from 'react';
import styled from 'styled-components';
import { type LadderScale, type PriceName, placeOn, priceAt, type Rung } from '@/core/selling';
import { formatAmount } from '@/ui/text/figures';
import { PRICE_WORDS, RUNG_WORDS } from '@/ui/text/sellingWords';

const HEIGHT = 330;
const WIDTH = 300;
const RAIL = 108;
const TOP = 14;
const FOOT = HEIGHT - 14;
/** Labels need so much room between their lines. */
const GAP = 24;

const Drawing = styled.svg`
  display: block;
  max-width: 100%;
  touch-action: none;
  & text { font-size: 12.5px; fill: var(--ink); }
  & .soft { fill: var(--ink-soft); }
  & .loss { fill: var(--caution); }
  & .rail { stroke: var(--ink-soft); stroke-width: 1; }
  & .sunk { fill: var(--caution-pale); }
  & .paid { fill: var(--land-pale); }
  & .lead { stroke: var(--rule); }
  & .fixed { stroke: var(--ink-soft); stroke-width: 1.5; }
  & .fixed[data-kind='no loss'] { stroke-dasharray: 4 3; stroke: var(--caution); }
  & [role='slider'] { cursor: ns-resize; outline: none; }
  & [role='slider'] rect { fill: var(--bearing); }
  & [role='slider']:focus-visible rect { stroke: var(--bearing); stroke-width: 6; stroke-opacity: 0.35; }
`;

const isPrice = (kind: Rung['kind']): kind is PriceName => kind !== 'cost' && kind !== 'no loss';

interface LadderProps {
  readonly rungs: readonly Rung[];
  readonly scale: LadderScale;
  readonly currency: string;
  readonly unitMinor: number;
  readonly label: string;
  readonly onPrice: (price: PriceName, minor: number) => void;
}

/**
 * A name's prices on one scale, in which even steps are even factors: below the line of no loss the rail is pale red. Prices can be
 * dragged, or moved by the arrow keys.
 */
export function Ladder({ rungs, scale, currency, unitMinor, label, onPrice }: LadderProps) {
  const drawing = useRef<SVGSVGElement>(null);
  const heightOf = (minor: number) => FOOT - placeOn(scale, minor) * (FOOT - TOP);
  const noLoss = rungs.find(({ kind }) => kind === 'no loss');
  const sunkTop = noLoss ? heightOf(noLoss.minor) : FOOT;
  const lines = labelHeights(rungs.map(({ minor }) => heightOf(minor)));

  const { drag, step } = useMoves(drawing, { scale, unitMinor, onPrice });
  return (
    <Drawing
      ref={drawing}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width={WIDTH}
      height={HEIGHT}
      role="group"
      aria-label={label}
    >
      <rect className="paid" x={RAIL - 5} y={TOP} width={10} height={Math.max(0, sunkTop - TOP)} />
      <rect className="sunk" x={RAIL - 5} y={sunkTop} width={10} height={Math.max(0, FOOT - sunkTop)} />
      <line className="rail" x1={RAIL - 5} x2={RAIL - 5} y1={TOP} y2={FOOT} />
      <line className="rail" x1={RAIL + 5} x2={RAIL + 5} y1={TOP} y2={FOOT} />
      {rungs.map((rung, i) => {
        const { kind, minor, profitMinor } = rung;
        const y = heightOf(minor);
        const textY = (lines[i] ?? y) + 4;
        const price = formatAmount({ minor, currency }, true);
        const left = leftWords(rung, currency);
        const texts = { kind, y, textY, price, left, isLoss: (profitMinor ?? 0) < 0 };
        return isPrice(kind) ? (
          <g
            key={kind}
            role="slider"
            tabIndex={0}
            aria-label={PRICE_WORDS[kind]}
            aria-orientation="vertical"
            aria-valuemin={Math.round(scale.lowMinor / unitMinor)}
            aria-valuemax={Math.round(scale.highMinor / unitMinor)}
            aria-valuenow={Math.round(minor / unitMinor)}
            aria-valuetext={`${price}${left ? `, ${left}` : ''}`}
            onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
            onPointerMove={drag(kind)}
            onKeyDown={step(kind, minor)}
          >
            <rect x={RAIL - 14} y={y - 3.5} width={28} height={7} rx={1} />
            <RungTexts {...texts} />
          </g>
        ) : (
          <g key={kind}>
            <line className="fixed" data-kind={kind} x1={RAIL - 10} x2={RAIL + 10} y1={y} y2={y} />
            <RungTexts {...texts} />
          </g>
        );
      })}
    </Drawing>
  );
}

interface Moves {
  readonly scale: LadderScale;
  readonly unitMinor: number;
  readonly onPrice: (price: PriceName, minor: number) => void;
}

/** Moving a price by hand: dragged, or by keys, a hundredth of the ladder at a time, five with the page keys. */
function useMoves(drawing: RefObject<SVGSVGElement | null>, { scale, unitMinor, onPrice }: Moves) {
  const drag = (price: PriceName) => (event: PointerEvent<SVGGElement>) => {
    if (event.buttons !== 1 || !drawing.current) return;
    const box = drawing.current.getBoundingClientRect();
    const y = ((event.clientY - box.top) / box.height) * HEIGHT;
    onPrice(price, priceAt(scale, (FOOT - y) / (FOOT - TOP), unitMinor));
  };
  const step = (price: PriceName, minor: number) => (event: KeyboardEvent<SVGGElement>) => {
    const by = { ArrowUp: 0.01, ArrowRight: 0.01, PageUp: 0.05, ArrowDown: -0.01, ArrowLeft: -0.01, PageDown: -0.05 }[
      event.key
    ];
    if (by === undefined) return;
    event.preventDefault();
    const moved = priceAt(scale, placeOn(scale, minor) + by, unitMinor);
    // Rounding must not hold a small step back.
    onPrice(price, moved === minor ? Math.max(unitMinor, minor + Math.sign(by) * unitMinor) : moved);
  };
  return { drag, step };
}

/** What a price would leave, as it stands beside its rung. */
function leftWords({ kind, net, profitMinor }: Rung, currency: string): string {
  if (kind === 'cost' || kind === 'no loss') return '';
  if (net === null) return 'fees not known';
  return profitMinor === null
    ? `proceeds ${formatAmount({ minor: net.proceedsMinor, currency }, true)}`
    : `${profitMinor < 0 ? '' : '+'}${formatAmount({ minor: profitMinor, currency }, true)}`;
}

interface RungTextsProps {
  readonly kind: Rung['kind'];
  /** Height of the rung, and of its texts, which keep apart from each other. */
  readonly y: number;
  readonly textY: number;
  readonly price: string;
  readonly left: string;
  readonly isLoss: boolean;
}

/** What a rung is called, its price, and what that leaves, each led to its rung. */
function RungTexts({ kind, y, textY, price, left, isLoss }: RungTextsProps) {
  return (
    <>
      <polyline
        className="lead"
        fill="none"
        points={`${RAIL - (isPrice(kind) ? 14 : 10)},${y} ${RAIL - 19},${textY - 4}`}
      />
      <polyline
        className="lead"
        fill="none"
        points={`${RAIL + (isPrice(kind) ? 14 : 10)},${y} ${RAIL + 19},${textY - 4}`}
      />
      <text x={RAIL - 22} y={textY} textAnchor="end" className={isPrice(kind) ? undefined : 'soft'}>
        {RUNG_WORDS[kind]}
      </text>
      <text x={RAIL + 22} y={textY} fontWeight={isPrice(kind) ? 600 : 400}>
        {price}
      </text>
      <text x={WIDTH - 4} y={textY} textAnchor="end" className={isLoss ? 'loss' : 'soft'}>
        {left}
      </text>
    </>
  );
}

/** Heights of labels that keep apart, given those of their rungs from the lowest (greatest) up. */
function labelHeights(heights: readonly number[]): number[] {
  const placed: number[] = [];
  for (const height of heights) placed.push(Math.min(height, (placed.at(-1) ?? FOOT + GAP) - GAP));
  // What was pushed beyond the head comes down again.
  for (let i = placed.length - 1, least = TOP; i >= 0; i -= 1, least += GAP)
    placed[i] = Math.max(placed[i] ?? 0, least);
  return placed;
}

const Line = styled.svg`
  display: block;
  & .rail { stroke: var(--rule); stroke-width: 6; }
  & .sunk { stroke: var(--caution-pale); stroke-width: 6; }
  & .mark { stroke: var(--bearing); stroke-width: 2.5; }
  & .mark[data-kind='no loss'] { stroke: var(--caution); stroke-width: 1.5; stroke-dasharray: 3 2; }
  & .mark[data-kind='cost'] { stroke: var(--ink-soft); stroke-width: 1.5; }
`;

/** The same ladder laid on its side, for a row. What it shows stands in the row in figures. */
export function LadderLine({ rungs, scale, width }: { rungs: readonly Rung[]; scale: LadderScale; width: number }) {
  const at = (minor: number) => 3 + placeOn(scale, minor) * (width - 6);
  const noLoss = rungs.find(({ kind }) => kind === 'no loss');
  return (
    <Line width={width} height={22} aria-hidden>
      <line className="rail" x1={3} x2={width - 3} y1={11} y2={11} />
      {noLoss && <line className="sunk" x1={3} x2={at(noLoss.minor)} y1={11} y2={11} />}
      {rungs.map(({ kind, minor }) => (
        <line key={kind} className="mark" data-kind={kind} x1={at(minor)} x2={at(minor)} y1={3} y2={19} />
      ))}
    </Line>
  );
}
