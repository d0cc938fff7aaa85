'use client';
import type { YearPath, YearPayment } from '@/core/pricing';
import { addYears, dayOf, formatDay } from '@/core/time';
import { formatAmount } from '@/ui/text/figures';
import { Ruled } from '@/ui/text/Sheet';
import { yearsWords } from '@/ui/text/words';
import { useLedger } from '../frame/LedgerProvider';
import { paymentWords } from './priceWords';
import type { Wanted } from './usePrices';

interface BestWayProps {
  readonly path: YearPath | null;
  readonly wanted: Wanted;
  readonly labels: ReadonlyMap<number, string>;
}

/** The cheapest payments of all, moving included: when, what, where, and how much. */
export function BestWay({ path, wanted, labels }: BestWayProps) {
  const { homeCurrency, today } = useLedger();
  const money = (minor: number) => formatAmount({ minor, currency: homeCurrency });
  if (path === null) return <p className="soft">No account is known to sell it for {yearsWords(wanted.years)}.</p>;
  const when = ({ after, isNow }: YearPayment) => {
    if (isNow) return 'today';
    const day = formatDay(dayOf(addYears(today, after)));
    return wanted.heldAt === null ? day : after === 0 ? 'at the next charge' : `${yearsWords(after)} after it`;
  };
  return (
    <>
      <h2>The cheapest way: {money(path.totalMinor)}</h2>
      <Ruled aria-label="The cheapest way">
        <tbody>
          {path.payments.map((payment) => (
            <tr key={`${payment.after} ${payment.action} ${payment.accountId}`}>
              <td>{when(payment)}</td>
              <td>
                {paymentWords(payment)} at {labels.get(payment.accountId)}
              </td>
              <td className="figure">{money(payment.minor)}</td>
            </tr>
          ))}
        </tbody>
      </Ruled>
      {path.nowMinor > 0 && <p className="soft">To pay now: {money(path.nowMinor)}.</p>}
    </>
  );
}
