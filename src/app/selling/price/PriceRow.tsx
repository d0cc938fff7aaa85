'use client';
import { memo } from 'react';
import { wholeUnit } from '@/core/money';
import { type Draft, type PricedName, type PriceName, priceDraft, pricesOf } from '@/core/selling';
import { Check } from '@/ui/controls/Check';
import { CutName } from '@/ui/text/CutName';
import { formatAmount } from '@/ui/text/figures';
import { PRICE_WORDS } from '@/ui/text/sellingWords';
import { LadderLine } from './Ladder';
import { PriceInput } from './PriceInput';
import { usePricing } from './PricingContext';

/** How wide each column is, in pixels. */
export const WIDTHS = { choose: 28, name: 154, cost: 50, price: 65, ladder: 51, proceeds: 70, check: 70 };

interface PriceRowProps {
  readonly place: number;
  readonly name: PricedName;
  readonly draft: Draft;
  readonly prices: readonly PriceName[];
  readonly isCurrent: boolean;
  readonly isChosen: boolean;
  readonly onCurrent: (nameId: number) => void;
  readonly onChoose: (nameId: number, isChosen: boolean) => void;
}

/** One name: what it has cost, its prices, its ladder in little, what a sale would bring, and how its checks stand. */
export const PriceRow = memo(function PriceRow({
  place,
  name,
  draft,
  prices,
  onCurrent,
  onChoose,
  ...is
}: PriceRowProps) {
  const { pricing, at, scale, onPrice } = usePricing();
  const { rungs, findings, costMinor } = priceDraft(name, draft, at, pricing);
  const used = pricesOf(draft.kind);
  const stops = findings.filter((finding) => finding.stops);
  const wrong = new Set(stops.flatMap(({ price, other }) => [price, other]));
  const leading =
    rungs.findLast(({ kind }) => kind === 'asking') ?? rungs.findLast(({ kind }) => kind === 'reserve') ?? rungs.at(-1);
  const { currency } = at;
  const unitMinor = wholeUnit(currency);
  // Whole units fit in a row; the exact figures stand beside the list.
  const units = (minor: number) => formatAmount({ minor: Math.round(minor / unitMinor) * unitMinor, currency }, true);
  return (
    <tr
      aria-rowindex={place + 2}
      data-current={is.isCurrent}
      onFocus={() => onCurrent(name.nameId)}
      onPointerDown={() => onCurrent(name.nameId)}
    >
      <td>
        <Check
          aria-label={`Choose ${name.unicode}`}
          isSelected={is.isChosen}
          onChange={(on) => onChoose(name.nameId, on)}
        />
      </td>
      <td className="name" title={name.unicode}>
        <CutName name={name.unicode} />
      </td>
      <td className={costMinor === null ? 'figure soft' : 'figure'}>
        {costMinor === null ? 'no rate' : units(costMinor)}
      </td>
      {prices.map((price) => (
        <td key={price}>
          {used.includes(price) ? (
            <PriceInput
              minor={draft.prices[price]}
              unread={draft.unread[price]}
              currency={currency}
              aria-label={`${PRICE_WORDS[price]} of ${name.unicode}`}
              aria-invalid={wrong.has(price)}
              data-place={place}
              data-price={price}
              onPrice={(minor, unread) => onPrice(name.nameId, price, minor, unread)}
            />
          ) : (
            <span className="soft">–</span>
          )}
        </td>
      ))}
      <td>
        <LadderLine rungs={rungs} scale={scale} width={WIDTHS.ladder - 8} />
      </td>
      <td className="figure">
        {leading && leading.kind !== 'cost' && leading.kind !== 'no loss'
          ? leading.net
            ? units(leading.net.proceedsMinor)
            : 'no rate'
          : ''}
      </td>
      <td className={stops.length > 0 ? 'caution' : undefined}>
        {stops.length > 0 ? `${stops.length} to mend` : findings.length > 0 ? `${findings.length} to know` : 'in order'}
      </td>
    </tr>
  );
});
