'use client';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, memo, useMemo, useRef } from 'react';
import styled from 'styled-components';
import { wholeUnit } from '@/core/money';
import { type LadderScale, PRICE_NAMES, type PriceName, pricesOf } from '@/core/selling';
import { Check } from '@/ui/controls/Check';
import { formatAmount } from '@/ui/text/figures';
import { PRICE_WORDS } from '@/ui/text/sellingWords';
import type { PricedName, Pricing } from '@/usecases/selling/pricing';
import { type Draft, type Drafts, judge, type Terms } from './drafts';
import { LadderLine } from './Ladder';

const ROW = 38;
const WIDTHS = { choose: 28, name: 152, cost: 50, price: 65, ladder: 74, leaves: 70, check: 70 };

/** Headings that fit over a price. */
const HEADS: Readonly<Record<PriceName, string>> = { ...PRICE_WORDS, minimum: 'min. offer' };

const Scroller = styled.div`
  position: relative;
  overflow: auto;
  max-height: 62vh;
  border-top: 1px solid var(--rule);
  border-bottom: 1px solid var(--rule);
`;

const Table = styled.table`
  table-layout: fixed;
  border-collapse: separate;
  border-spacing: 0;
  & th { position: sticky; top: 0; z-index: 2; text-align: left; font-weight: 400; font-size: 0.9rem; color: var(--ink-soft); background: var(--sheet); }
  & th.figure { text-align: right; }
  & th, & td { height: ${ROW}px; padding: 0 4px; border-bottom: 1px solid var(--rule); overflow: hidden; white-space: nowrap; text-overflow: ellipsis; }
  & tr[data-current='true'] td { background: var(--bearing-pale); }
  & tr[data-space='true'] td { height: auto; padding: 0; border: 0; }
`;

const PriceInput = styled.input`
  width: 100%;
  min-height: 28px;
  padding: 2px 6px;
  border: 1px solid var(--rule);
  border-radius: 2px;
  background: var(--sheet);
  text-align: right;
  &[aria-invalid='true'] { border-color: var(--caution); }
  &:disabled { border-color: transparent; background: none; }
`;

/** Prices that at least one of the drafts has, in their order. */
function shownPrices(drafts: Drafts): PriceName[] {
  const used = new Set([...drafts.values()].flatMap(({ kind }) => pricesOf(kind)));
  return PRICE_NAMES.filter((name) => used.has(name));
}

/** The names with their prices to be typed: arrows up and down go from name to name, Tab from price to price. */
export function PriceRows({
  pricing,
  drafts,
  terms,
  scale,
  current,
  chosen,
  onCurrent,
  onChoose,
  onPrice,
}: {
  pricing: Pricing;
  drafts: Drafts;
  terms: Terms;
  scale: LadderScale;
  current: number;
  chosen: ReadonlySet<number>;
  onCurrent: (nameId: number) => void;
  onChoose: (nameId: number | 'all', isChosen: boolean) => void;
  onPrice: (nameId: number, price: PriceName, text: string) => void;
}) {
  const scroller = useRef<HTMLDivElement>(null);
  const { names } = pricing;
  const shown = shownPrices(drafts).join();
  // The same list while the kinds stay: else every row would be drawn anew.
  const prices = useMemo(() => PRICE_NAMES.filter((price) => shown.split(',').includes(price)), [shown]);
  const virtual = useVirtualizer({
    count: names.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 6,
    scrollPaddingStart: ROW,
  });
  const width =
    WIDTHS.choose +
    WIDTHS.name +
    WIDTHS.cost +
    prices.length * WIDTHS.price +
    WIDTHS.ladder +
    WIDTHS.leaves +
    WIDTHS.check;

  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>) => {
    const input = event.target as HTMLInputElement;
    const place = Number(input.dataset.place);
    if ((event.key !== 'ArrowDown' && event.key !== 'ArrowUp') || !input.dataset.price) return;
    const next = place + (event.key === 'ArrowDown' ? 1 : -1);
    if (next < 0 || next >= names.length) return;
    event.preventDefault();
    const moveTo = () => {
      const field = scroller.current?.querySelector<HTMLInputElement>(
        `input[data-place='${next}'][data-price='${input.dataset.price}']`,
      );
      field?.focus();
      field?.select();
      return field !== null && field !== undefined;
    };
    // What is typed at once goes there already; a row out of view has to be drawn first.
    if (!moveTo()) requestAnimationFrame(moveTo);
    virtual.scrollToIndex(next);
  };

  const items = virtual.getVirtualItems();
  const before = items[0]?.start ?? 0;
  const after = virtual.getTotalSize() - (items.at(-1)?.end ?? 0);
  return (
    <Scroller ref={scroller} onKeyDown={onKeyDown}>
      <Table aria-label="Names to price" aria-rowcount={names.length + 1} style={{ width }}>
        <colgroup>
          {[
            WIDTHS.choose,
            WIDTHS.name,
            WIDTHS.cost,
            ...prices.map(() => WIDTHS.price),
            WIDTHS.ladder,
            WIDTHS.leaves,
            WIDTHS.check,
          ].map((each, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: columns have no other name
            <col key={i} style={{ width: each }} />
          ))}
        </colgroup>
        <thead>
          <tr>
            <th>
              <Check
                aria-label="Choose all names"
                isSelected={chosen.size === names.length}
                isIndeterminate={chosen.size > 0 && chosen.size < names.length}
                onChange={(on) => onChoose('all', on)}
              />
            </th>
            <th>Name</th>
            <th className="figure">cost</th>
            {prices.map((price) => (
              <th key={price} className="figure">
                {HEADS[price]}
              </th>
            ))}
            <th>ladder</th>
            <th className="figure">leaves</th>
            <th>checks</th>
          </tr>
        </thead>
        <tbody>
          <tr data-space aria-hidden>
            <td style={{ height: before }} />
          </tr>
          {items.map((item) => {
            const name = names[item.index] as PricedName;
            return (
              <PriceRow
                key={name.nameId}
                place={item.index}
                name={name}
                draft={drafts.get(name.nameId) as Draft}
                prices={prices}
                terms={terms}
                scale={scale}
                pricing={pricing}
                isCurrent={current === name.nameId}
                isChosen={chosen.has(name.nameId)}
                onCurrent={onCurrent}
                onChoose={onChoose}
                onPrice={onPrice}
              />
            );
          })}
          <tr data-space aria-hidden>
            <td style={{ height: after }} />
          </tr>
        </tbody>
      </Table>
    </Scroller>
  );
}

const PriceRow = memo(function PriceRow({
  place,
  name,
  draft,
  prices,
  terms,
  scale,
  pricing,
  isCurrent,
  isChosen,
  onCurrent,
  onChoose,
  onPrice,
}: {
  place: number;
  name: PricedName;
  draft: Draft;
  prices: readonly PriceName[];
  terms: Terms;
  scale: LadderScale;
  pricing: Pricing;
  isCurrent: boolean;
  isChosen: boolean;
  onCurrent: (nameId: number) => void;
  onChoose: (nameId: number, isChosen: boolean) => void;
  onPrice: (nameId: number, price: PriceName, text: string) => void;
}) {
  const { rungs, findings, costMinor } = judge(name, draft, terms, pricing);
  const used = pricesOf(draft.kind);
  const stops = findings.filter((finding) => finding.stops);
  const wrong = new Set(stops.flatMap(({ price, other }) => [price, other]));
  const leading =
    rungs.findLast(({ kind }) => kind === 'asking') ?? rungs.findLast(({ kind }) => kind === 'reserve') ?? rungs.at(-1);
  const { currency } = terms;
  const unitMinor = wholeUnit(currency);
  // Whole units fit in a row; the exact figures stand beside the list.
  const units = (minor: number) => formatAmount({ minor: Math.round(minor / unitMinor) * unitMinor, currency }, true);
  return (
    <tr
      aria-rowindex={place + 2}
      data-current={isCurrent}
      onFocus={() => onCurrent(name.nameId)}
      onPointerDown={() => onCurrent(name.nameId)}
    >
      <td>
        <Check
          aria-label={`Choose ${name.unicode}`}
          isSelected={isChosen}
          onChange={(on) => onChoose(name.nameId, on)}
        />
      </td>
      <td className="name" title={name.unicode}>
        {name.unicode}
      </td>
      <td className={costMinor === null ? 'figure soft' : 'figure'}>
        {costMinor === null ? 'no rate' : units(costMinor)}
      </td>
      {prices.map((price) => (
        <td key={price}>
          {used.includes(price) ? (
            <PriceInput
              inputMode="decimal"
              value={draft.prices[price]}
              aria-label={`${PRICE_WORDS[price]} of ${name.unicode}`}
              aria-invalid={wrong.has(price)}
              data-place={place}
              data-price={price}
              onChange={(event) => onPrice(name.nameId, price, event.target.value)}
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
          ? leading.leaves
            ? units(leading.leaves.proceedsMinor)
            : 'no rate'
          : ''}
      </td>
      <td className={stops.length > 0 ? 'caution' : undefined}>
        {stops.length > 0 ? `${stops.length} to mend` : findings.length > 0 ? `${findings.length} to know` : 'in order'}
      </td>
    </tr>
  );
});
