'use client';
import { Choice } from '@/ui/controls/Field';
import { formatAmount } from '@/ui/text/figures';
import { Ruled } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { termEndWords } from '@/ui/text/words';
import type { QuotedItem, RenewalQuote } from '@/usecases/orders/quote';
import { useLedger } from '../../frame/LedgerProvider';
import { type Asked, AskedCell } from './Asked';
import { type OnPayBy, type PayBy, QuoteTotals } from './QuoteTotals';

function termsOf(item: QuotedItem): { value: string; text: string }[] {
  const most = item.mostYears ?? item.leastYears;
  const terms: { value: string; text: string }[] = [];
  for (let years = item.leastYears; years <= most; years += item.stepYears)
    terms.push({ value: String(years), text: years === 1 ? '1 year' : `${years} years` });
  if (!terms.some((term) => term.value === String(item.years)))
    terms.push({ value: String(item.years), text: `${item.years} years` });
  return terms;
}

/** Old end, term, new end and cost of each name, and what it comes to at each account. */
export function QuoteTable({
  quote,
  payBy,
  onPayBy,
  locked,
  asked,
  onYears,
}: {
  quote: RenewalQuote;
  asked: Asked;
  payBy: PayBy;
  onPayBy: OnPayBy;
  locked: boolean;
  onYears: (nameId: number, years: number) => void;
}) {
  const { style } = useLedger();
  return (
    <Wide>
      <Ruled aria-label="Names to renew">
        <thead>
          <tr>
            <th>Name</th>
            <th>Term ends</th>
            <th>Renew for</th>
            <th>New end</th>
            <th className="figure">Price</th>
            <th className="figure">Promotion</th>
            <th className="figure">Registry fee</th>
            <th className="figure">Late fee</th>
            <th className="figure">Tax</th>
            <th className="figure">In all</th>
            {asked.size > 0 && <th className="figure">Registrar asks</th>}
          </tr>
        </thead>
        <tbody>
          {quote.items.map((item) => (
            <tr key={item.nameId} data-off={item.refusal !== null}>
              <td className="name">{item.unicode}</td>
              <td>{item.oldEnd ? termEndWords(item.oldEnd, style) : 'not known'}</td>
              <td>
                {locked || item.mostYears === null ? (
                  `${item.years} ${item.years === 1 ? 'year' : 'years'}`
                ) : (
                  <Choice
                    hideLabel
                    label={`Term for ${item.unicode}`}
                    value={String(item.years)}
                    onChange={(years) => onYears(item.nameId, Number(years))}
                    options={termsOf(item)}
                  />
                )}
              </td>
              {item.refusal ? (
                <td colSpan={asked.size > 0 ? 8 : 7} className="caution">
                  {item.refusal.message}
                </td>
              ) : (
                <>
                  <td>{item.newEnd ? termEndWords(item.newEnd, style) : ''}</td>
                  <Figures item={item} />
                  {asked.size > 0 && <AskedCell asked={asked} nameId={item.nameId} />}
                </>
              )}
            </tr>
          ))}
        </tbody>
        <QuoteTotals quote={quote} columns={asked.size > 0 ? 11 : 10} payBy={payBy} onPayBy={onPayBy} />
      </Ruled>
    </Wide>
  );
}

function Figures({ item }: { item: QuotedItem }) {
  if (!item.cost) {
    return (
      <td colSpan={6} className="figure soft">
        no price known, or no rate into its currency: set it under Setup, or write what was charged
      </td>
    );
  }
  const { currency } = item.cost.total;
  const line = (minor: number) => (minor === 0 ? '' : formatAmount({ minor, currency }));
  return (
    <>
      <td className="figure">{line(item.cost.price)}</td>
      <td className="figure">
        {item.cost.promotion === 0 ? '' : formatAmount({ minor: -item.cost.promotion, currency })}
      </td>
      <td className="figure">{line(item.cost.fee)}</td>
      <td className="figure">{item.lateFee ? formatAmount(item.lateFee) : ''}</td>
      <td className="figure">{line(item.cost.tax)}</td>
      <td className="figure">
        <strong>{item.total ? formatAmount(item.total) : ''}</strong>
      </td>
    </>
  );
}
