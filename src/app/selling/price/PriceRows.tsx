'use client';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, useMemo, useRef } from 'react';
import styled from 'styled-components';
import { type Draft, type Drafts, PRICE_NAMES, type PricedName, type PriceName, pricesOf } from '@/core/selling';
import { Check } from '@/ui/controls/Check';
import { PRICE_WORDS } from '@/ui/text/sellingWords';
import { PriceRow, WIDTHS } from './PriceRow';
import { usePricing } from './PricingContext';

const ROW = 38;

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

/** Prices that at least one of the drafts has, in their order. */
function shownPrices(drafts: Drafts): PriceName[] {
  const used = new Set([...drafts.values()].flatMap(({ kind }) => pricesOf(kind)));
  return PRICE_NAMES.filter((name) => used.has(name));
}

interface PriceRowsProps {
  readonly drafts: Drafts;
  readonly current: number;
  readonly chosen: ReadonlySet<number>;
  readonly onCurrent: (nameId: number) => void;
  readonly onChoose: (nameId: number | 'all', isChosen: boolean) => void;
}

/** The names with their prices to be typed: arrows up and down go from name to name, Tab from price to price. */
export function PriceRows({ drafts, current, chosen, onCurrent, onChoose }: PriceRowsProps) {
  const { names } = usePricing().pricing;
  const scroller = useRef<HTMLDivElement>(null);
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
  const width = widthsOf(prices).reduce((sum, each) => sum + each, 0);

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
        <Heads prices={prices} chosen={chosen.size} total={names.length} onAll={(on) => onChoose('all', on)} />
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
                isCurrent={current === name.nameId}
                isChosen={chosen.has(name.nameId)}
                onCurrent={onCurrent}
                onChoose={onChoose}
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

/** The width of each column, in pixels. */
function widthsOf(prices: readonly PriceName[]): number[] {
  const { choose, name, cost, price, ladder, proceeds, check } = WIDTHS;
  return [choose, name, cost, ...prices.map(() => price), ladder, proceeds, check];
}

interface HeadsProps {
  readonly prices: readonly PriceName[];
  readonly chosen: number;
  readonly total: number;
  readonly onAll: (isChosen: boolean) => void;
}

/** The headings, and the box that chooses all names. */
function Heads({ prices, chosen, total, onAll }: HeadsProps) {
  return (
    <>
      <colgroup>
        {widthsOf(prices).map((each, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: columns have no other name
          <col key={i} style={{ width: each }} />
        ))}
      </colgroup>
      <thead>
        <tr>
          <th>
            <Check
              aria-label="Choose all names"
              isSelected={chosen === total}
              isIndeterminate={chosen > 0 && chosen < total}
              onChange={onAll}
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
          <th className="figure">proceeds</th>
          <th>checks</th>
        </tr>
      </thead>
    </>
  );
}
