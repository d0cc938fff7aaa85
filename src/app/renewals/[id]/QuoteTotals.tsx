'use client';
import { Choice } from '@/ui/controls/Field';
import { amountsWords, namesWords } from '@/ui/text/words';
import type { RenewalQuote } from '@/usecases/orders/quote';
import { MoneyThere } from './MoneyThere';

/** By which of its payment methods each account pays, by account. */
export type PayBy = Readonly<Record<string, string>>;
/** `null` is the account's usual order. */
export type OnPayBy = (accountId: number, paymentMethod: string | null) => void;

/** The foot of a quote: what it comes to at each account, what pays it, and in all. `columns` are those of its table. */
export function QuoteTotals({
  quote,
  columns,
  payBy,
  onPayBy,
}: {
  quote: RenewalQuote;
  columns: number;
  payBy: PayBy;
  onPayBy: OnPayBy;
}) {
  const { promotion } = quote;
  return (
    <tfoot>
      {quote.accounts.map(({ account, totals }) => (
        <tr key={account.id}>
          <td colSpan={columns - 1}>
            {account.label}{' '}
            <MoneyThere quote={quote} account={account} totals={totals} payBy={payBy[account.id] ?? null} />
            {account.paymentMethods.length > 1 && (
              <div style={{ maxWidth: 320 }}>
                <Choice
                  hideLabel
                  label={`What pays at ${account.label}`}
                  value={payBy[account.id] ?? ''}
                  onChange={(paymentMethod) => onPayBy(account.id, paymentMethod || null)}
                  options={[
                    {
                      value: '',
                      text: `paid as usual: ${account.paymentMethods.map(({ label }) => label).join(', then ')}`,
                    },
                    ...account.paymentMethods.map(({ label }) => ({ value: label, text: `paid by ${label}` })),
                  ]}
                />
              </div>
            )}
          </td>
          <td className="figure">{amountsWords(totals)}</td>
        </tr>
      ))}
      <tr>
        <td colSpan={columns - 1}>
          {namesWords(quote.items.filter((item) => item.refusal === null).length)} in all
          {promotion?.code && promotion.percent === null && (
            <span className="soft">
              {' '}
              before what {promotion.code} takes off: linked registrars are asked for their price, elsewhere you see it
              there
            </span>
          )}
        </td>
        <td className="figure">{amountsWords(quote.totals)}</td>
      </tr>
    </tfoot>
  );
}
