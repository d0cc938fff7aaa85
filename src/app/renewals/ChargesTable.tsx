'use client';
import { amount } from '@/core/money';
import { formatMonth } from '@/core/time';
import { Link } from '@/ui/controls/Link';
import { formatAmount } from '@/ui/text/figures';
import { Ruled } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { causeWords, dayWords } from '@/ui/text/words';
import { useLedger } from '../frame/LedgerProvider';
import { namePage } from '../frame/pages';
import type { FundingView } from '../frame/views';

const MOST_ROWS = 60;

/** The charges of an account by month: how many pass, how many fail, what is missing. */
export function MonthsTable({ funding: { account, months } }: { funding: FundingView }) {
  const money = (minor: number) => formatAmount(amount(minor, account.currency));
  if (months.length === 0) return null;
  return (
    <Wide>
      <Ruled aria-label={`Charges of ${account.label} by month`}>
        <thead>
          <tr>
            <th>Month</th>
            <th className="figure">Charges</th>
            <th className="figure">Will pass</th>
            <th className="figure">Fail</th>
            <th className="figure">Missing</th>
          </tr>
        </thead>
        <tbody>
          {months.map((month) => (
            <tr key={month.month}>
              <td>{formatMonth(month.month)}</td>
              <td className="figure">{month.charges}</td>
              <td className="figure">{money(month.passingMinor)}</td>
              <td className="figure">{month.failing > 0 ? <span className="caution">{month.failing}</span> : '–'}</td>
              <td className="figure">
                {month.failing > 0 ? <span className="caution">{money(month.failingMinor)}</span> : '–'}
              </td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Wide>
  );
}

/** The charges of an account one by one, with what is left after each. */
export function ChargesTable({ funding: { account, charges, chargeCount } }: { funding: FundingView }) {
  const { style } = useLedger();
  const money = (minor: number) => formatAmount(amount(minor, account.currency));
  if (charges.length === 0) return null;
  return (
    <>
      <Wide>
        <Ruled aria-label={`Charges of ${account.label}`} data-list>
          <thead>
            <tr>
              <th>Day</th>
              <th>Name</th>
              <th className="figure">Charge</th>
              <th className="figure">Balance after</th>
              <th>Result</th>
            </tr>
          </thead>
          <tbody>
            {charges.slice(0, MOST_ROWS).map((charge) => (
              <tr key={`${charge.place} ${charge.at}`}>
                <td className="under">{dayWords(charge.at, style)}</td>
                <td className="lead">
                  <Link href={namePage(charge.ascii)} className="name">
                    {charge.unicode}
                  </Link>
                </td>
                <td className="figure">{charge.cost ? formatAmount(charge.cost) : 'no price'}</td>
                <td className="figure under" data-said="leaves">
                  {charge.balanceMinor === null ? '–' : money(charge.balanceMinor)}
                </td>
                <td className="under">
                  {charge.cause ? (
                    <span className="caution">fails: {causeWords(charge.cause)}</span>
                  ) : (
                    <>
                      {charge.assumed ? 'not known whether it passes' : 'passes'}
                      {charge.paymentMethod ? `, ${charge.paymentMethod}` : ''}
                    </>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      </Wide>
      {chargeCount > MOST_ROWS && (
        <p className="soft">
          The first {MOST_ROWS} of {chargeCount} charges.
        </p>
      )}
    </>
  );
}
