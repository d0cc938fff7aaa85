'use client';
import { useMemo } from 'react';
import { comparablesOf, type PricedName } from '@/core/selling';
import { startOfDay } from '@/core/time';
import { formatAmount } from '@/ui/text/figures';
import { Ruled } from '@/ui/text/Sheet';
import { dayWords } from '@/ui/text/words';
import { useLedger } from '../../frame/LedgerProvider';
import { usePricing } from './PricingContext';

/** What like names were sold for: the quartiles, and the sales themselves. */
export function LikeSales({ name }: { name: PricedName }) {
  const { pricing, at } = usePricing();
  const { style } = useLedger();
  const { currency } = at;
  const like = useMemo(() => comparablesOf(name, currency, pricing), [name, currency, pricing]);
  const money = (minor: number) => formatAmount({ minor, currency }, true);
  return (
    <details open={like !== null}>
      <summary>
        {like
          ? `Like sales: ${money(like.lowerMinor)} · ${money(like.medianMinor)} · ${money(like.upperMinor)}`
          : 'No sale of a like name is known'}
      </summary>
      {like && (
        <Ruled aria-label="Sales of like names">
          <tbody>
            {like.sales.map((sale) => (
              <tr key={`${sale.ascii} ${sale.day}`}>
                <td className="name">{sale.ascii}</td>
                <td className="whole">{dayWords(startOfDay(sale.day), style)}</td>
                <td className="soft">{sale.own ? 'your own' : sale.marketplace}</td>
                <td className="figure">{formatAmount(sale.price, true)}</td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      )}
    </details>
  );
}
