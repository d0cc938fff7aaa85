'use client';
import { useRef } from 'react';
import styled from 'styled-components';
import type { PricedName } from '@/core/selling';
import { startOfDay } from '@/core/time';
import { PriceDots } from '@/ui/strip/PriceDots';
import { formatAmount } from '@/ui/text/figures';
import { useWidth } from '@/ui/text/useWidth';
import { dayWords } from '@/ui/text/words';
import { useLedger } from '../../frame/LedgerProvider';
import { likeOf } from './likeOf';
import { usePricing } from './PricingContext';

const Sales = styled.ul`
  & li { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 0 10px; padding: 4px 0; border-bottom: 1px solid var(--rule); }
  & li > .name { overflow-wrap: anywhere; }
  & li > .soft { grid-column: 1 / 3; font-size: 0.93rem; }
`;

/** What like names were sold for: on one line with the price at hand, the quartiles, and the sales themselves. */
export function LikeSales({ name, askedMinor }: { name: PricedName; askedMinor: number | null }) {
  const { pricing, at } = usePricing();
  const { style } = useLedger();
  const { currency } = at;
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 290, 120);
  const like = likeOf(name, currency, pricing);
  const money = (minor: number) => formatAmount({ minor, currency }, true);
  return (
    <details open={like !== null}>
      <summary>
        {like
          ? `Like sales: ${money(like.lowerMinor)} · ${money(like.medianMinor)} · ${money(like.upperMinor)}`
          : 'No sale of a like name is known'}
      </summary>
      <div ref={box}>
        {like && (
          <>
            <PriceDots
              dots={like.sales.flatMap(({ ascii, price, own }) =>
                price.currency === currency ? [{ minor: price.minor, text: ascii, isOwn: own }] : [],
              )}
              mark={askedMinor === null ? null : { minor: askedMinor, text: 'asked' }}
              currency={currency}
              width={width}
            />
            <Sales aria-label="Sales of like names">
              {like.sales.map((sale) => (
                <li key={`${sale.ascii} ${sale.day}`}>
                  <span className="name">{sale.ascii}</span>
                  <span className="figure">{formatAmount(sale.price, true)}</span>
                  <span className="soft">
                    {dayWords(startOfDay(sale.day), style)}, {sale.own ? 'your own' : sale.marketplace}
                  </span>
                </li>
              ))}
            </Sales>
          </>
        )}
      </div>
    </details>
  );
}
