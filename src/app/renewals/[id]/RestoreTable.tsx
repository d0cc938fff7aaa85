'use client';
import { formatAmount } from '@/ui/text/figures';
import { Ruled } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { termEndWords, untilWords } from '@/ui/text/words';
import type { RenewalQuote } from '@/usecases/orders/quote';
import { useLedger } from '../../frame/LedgerProvider';
import { type Asked, AskedCell } from './Asked';
import { type OnPayBy, type PayBy, QuoteTotals } from './QuoteTotals';

/** Until when each name can be restored, its end after it, and what restore and a year come to. */
export function RestoreTable({
  quote,
  asked,
  payBy,
  onPayBy,
}: {
  quote: RenewalQuote;
  asked: Asked;
  payBy: PayBy;
  onPayBy: OnPayBy;
}) {
  const { style } = useLedger();
  return (
    <Wide>
      <Ruled aria-label="Names to restore">
        <thead>
          <tr>
            <th>Name</th>
            <th>Term ended</th>
            <th>Restore until</th>
            <th>New end</th>
            <th className="figure">Restore and a year</th>
            {asked.size > 0 && <th className="figure">Registrar asks</th>}
          </tr>
        </thead>
        <tbody>
          {quote.items.map((item) => (
            <tr key={item.nameId} data-off={item.refusal !== null}>
              <td className="name">{item.unicode}</td>
              <td>{item.oldEnd ? termEndWords(item.oldEnd, style) : 'not known'}</td>
              {item.refusal ? (
                <td colSpan={asked.size > 0 ? 4 : 3} className="caution">
                  {item.refusal.message}
                </td>
              ) : (
                <>
                  <td>{item.until ? untilWords(item.until, style) : ''}</td>
                  <td>{item.newEnd ? termEndWords(item.newEnd, style) : ''}</td>
                  <td className="figure">
                    <strong>
                      {item.cost?.ruleOfThumb && 'about '}
                      {item.total ? formatAmount(item.total) : 'no price known'}
                    </strong>
                    {item.cost?.ruleOfThumb && <div className="soft">by rule of thumb: no restore price is known</div>}
                  </td>
                  {asked.size > 0 && <AskedCell asked={asked} nameId={item.nameId} />}
                </>
              )}
            </tr>
          ))}
        </tbody>
        <QuoteTotals quote={quote} columns={asked.size > 0 ? 6 : 5} payBy={payBy} onPayBy={onPayBy} />
      </Ruled>
    </Wide>
  );
}
