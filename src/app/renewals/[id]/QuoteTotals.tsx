'use client';
import { amountsWords, namesWords } from '@/ui/text/words';
import type { RenewalQuote } from '@/usecases/renewals/quote';
import { MoneyThere } from './MoneyThere';

/** The foot of a quote: what it comes to at each account, and in all. `columns` are those of its table. */
export function QuoteTotals({ quote, columns }: { quote: RenewalQuote; columns: number }) {
  return (
    <tfoot>
      {quote.accounts.map(({ account, totals }) => (
        <tr key={account.id}>
          <td colSpan={columns - 1}>
            {account.label} <MoneyThere quote={quote} account={account} totals={totals} />
          </td>
          <td className="figure">{amountsWords(totals)}</td>
        </tr>
      ))}
      <tr>
        <td colSpan={columns - 1}>{namesWords(quote.items.filter((item) => item.refusal === null).length)} in all</td>
        <td className="figure">{amountsWords(quote.totals)}</td>
      </tr>
    </tfoot>
  );
}
