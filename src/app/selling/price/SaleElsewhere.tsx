'use client';
import { type Draft, draftTerms, netProceedsOf, type PricedName, soldAt } from '@/core/selling';
import { formatAmount } from '@/ui/text/figures';
import { Ruled } from '@/ui/text/Sheet';
import { usePricing } from './PricingContext';

/** The proceeds of the same price at each marketplace. What is paid for beside it differs there, and is left out. */
export function SaleElsewhere({ name, draft, minor }: { name: PricedName; draft: Draft; minor: number }) {
  const { pricing, at } = usePricing();
  const { currency } = at;
  const money = (amount: number) => formatAmount({ minor: amount, currency }, true);
  const plain = { ...draft, attributes: {}, categories: [] };
  return (
    <details>
      <summary>The same sale elsewhere</summary>
      <Ruled aria-label="Proceeds of the same sale at each marketplace">
        <tbody>
          {pricing.marketplaces.map(({ id, label }) => {
            const { fees } = draftTerms(plain, soldAt(pricing, id, currency), pricing, name.nameId);
            return (
              <tr key={id} data-off={id === at.marketplace?.id}>
                <td>{label}</td>
                <td className="figure">
                  {fees === null ? 'no rate' : money(netProceedsOf(minor, fees).proceedsMinor)}
                </td>
              </tr>
            );
          })}
          <tr data-off={at.marketplace === null}>
            <td>the office itself</td>
            <td className="figure">{money(minor)}</td>
          </tr>
        </tbody>
      </Ruled>
    </details>
  );
}
