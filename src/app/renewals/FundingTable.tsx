'use client';
import { amount } from '@/core/money';
import { Button } from '@/ui/controls/Button';
import { formatAmount } from '@/ui/text/figures';
import { Ruled } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { causeWords, dayWords, namesWords } from '@/ui/text/words';
import { useLedger } from '../frame/LedgerProvider';
import type { FundingView } from '../frame/views';

/** Each account's coming charges in one line: what they come to, the first that fails and why, and what would mend it. */
export function FundingTable({
  fundings,
  chosen,
  onChoose,
}: {
  fundings: readonly FundingView[];
  chosen: number | null;
  onChoose: (accountId: number) => void;
}) {
  const { style } = useLedger();
  return (
    <Wide>
      <Ruled aria-label="Funding by account">
        <thead>
          <tr>
            <th>Account</th>
            <th className="figure">Balance</th>
            <th className="figure">Charges</th>
            <th className="figure">Will pass</th>
            <th>First that fails</th>
            <th className="figure">Names that lapse</th>
            <th className="figure">Least top-up</th>
          </tr>
        </thead>
        <tbody>
          {fundings.map(({ account, months, firstFailure, lapsingCount, leastTopUp, chargeCount, notKnown }) => {
            const money = (minor: number) => formatAmount(amount(minor, account.currency));
            return (
              <tr key={account.id} data-chosen={chosen === account.id}>
                <td>
                  <Button data-kind="plain" aria-pressed={chosen === account.id} onPress={() => onChoose(account.id)}>
                    {account.label}
                  </Button>
                </td>
                <td className="figure">{account.balanceMinor === null ? '–' : money(account.balanceMinor)}</td>
                <td className="figure">{chargeCount}</td>
                <td className="figure">{money(months.reduce((sum, month) => sum + month.passingMinor, 0))}</td>
                <td>
                  {firstFailure ? (
                    <span className="caution">
                      {dayWords(firstFailure.at, style)}: {causeWords(firstFailure.cause)}
                    </span>
                  ) : chargeCount === 0 ? (
                    <span className="soft">nothing is charged</span>
                  ) : (
                    <span className="soft">
                      {notKnown === 0
                        ? 'every charge passes'
                        : notKnown === chargeCount
                          ? 'not known whether they pass'
                          : `not known for ${notKnown} of them`}
                    </span>
                  )}
                </td>
                <td className="figure">
                  {lapsingCount > 0 ? <span className="caution">{namesWords(lapsingCount)}</span> : '–'}
                </td>
                <td className="figure">
                  {leastTopUp ? `${money(leastTopUp.minor)} by ${dayWords(leastTopUp.by, style)}` : '–'}
                </td>
              </tr>
            );
          })}
        </tbody>
      </Ruled>
    </Wide>
  );
}
