'use client';
import { type PricedName, type PriceName, type Rung, returnOf } from '@/core/selling';
import { formatAmount } from '@/ui/text/figures';
import { Ruled } from '@/ui/text/Sheet';
import { PRICE_WORDS, returnWords } from '@/ui/text/sellingWords';
import { usePricing } from './PricingContext';

/** What each price brings: net proceeds, profit over what the name has cost, and the yearly return. */
export function ProceedsTable({ name, rungs }: { name: PricedName; rungs: readonly Rung[] }) {
  const { pricing, at } = usePricing();
  const { currency } = at;
  const money = (minor: number) => formatAmount({ minor, currency }, true);
  return (
    <Ruled aria-label="Proceeds of each price">
      <thead>
        <tr>
          <th>Price</th>
          <th className="figure">proceeds</th>
          <th className="figure">profit</th>
          <th className="figure">a year</th>
        </tr>
      </thead>
      <tbody>
        {rungs
          .filter(({ kind }) => kind !== 'cost' && kind !== 'no loss')
          .map(({ kind, minor, net, profitMinor }) => (
            <tr key={kind}>
              <td>
                {PRICE_WORDS[kind as PriceName]}
                <div className="soft">{money(minor)}</div>
              </td>
              <td className="figure">{net === null ? 'no rate' : money(net.proceedsMinor)}</td>
              <td className={profitMinor !== null && profitMinor < 0 ? 'figure caution' : 'figure'}>
                {profitMinor === null ? '–' : money(profitMinor)}
              </td>
              <td className="figure">
                {returnWords(net && returnOf(name, net.proceedsMinor, currency, pricing)).replace(' a year', '')}
              </td>
            </tr>
          ))}
      </tbody>
    </Ruled>
  );
}
