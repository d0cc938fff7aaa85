'use client';
import styled from 'styled-components';
import { amount, sumByCurrency, sumIn } from '@/core/money';
import { dayOf } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { formatAmount } from '@/ui/text/figures';
import { Ruled } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { amountsWords, causeWords, dayWords, namesWords } from '@/ui/text/words';
import { useLedger } from '../frame/LedgerProvider';
import type { FundingView } from '../frame/views';

/** The account whose charges are shown below stands out of its table. */
const Chosen = styled(Ruled)`
  & tr[data-chosen='true'] { background: var(--bearing-pale); box-shadow: inset 3px 0 var(--bearing); }
  & td button[data-kind='plain'] { font-weight: 600; padding-left: 10px; }
  & th:first-child, & tfoot td:first-child { padding-left: 10px; }
  &[data-list] { @media (max-width: 640px) { & tr { padding-left: 10px; } & td:first-child, & td button[data-kind='plain'] { padding-left: 0; } } }
`;

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
  const { meta, homeCurrency, today } = useLedger();
  const passing = fundings.map(({ account, months }) =>
    amount(
      months.reduce((sum, month) => sum + month.passingMinor, 0),
      account.currency,
    ),
  );
  const inHome = sumIn(passing, homeCurrency, meta?.rules.rates ?? [], dayOf(today));
  const count = (of: (one: FundingView) => number) => fundings.reduce((sum, one) => sum + of(one), 0);
  return (
    <Wide least={780}>
      <Chosen aria-label="Funding by account" data-list>
        <thead>
          <tr>
            <th>Account</th>
            <th className="figure">Balance</th>
            <th className="figure">Charges</th>
            <th className="figure" style={{ minWidth: 150 }}>
              Will pass
            </th>
            <th style={{ minWidth: 150 }}>First that fails</th>
            <th className="figure">Names that lapse</th>
            <th className="figure">Least top-up</th>
          </tr>
        </thead>
        <tbody>
          {fundings.map((funding) => (
            <AccountLine
              key={funding.account.id}
              funding={funding}
              isChosen={chosen === funding.account.id}
              onChoose={onChoose}
            />
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td>{fundings.length === 1 ? 'One account' : `${fundings.length} accounts`}</td>
            <td />
            <td className="figure" data-said="charges">
              {count(({ chargeCount }) => chargeCount).toLocaleString('en')}
            </td>
            <td className="figure under" data-said="will pass" style={{ whiteSpace: 'normal' }}>
              {amountsWords(sumByCurrency(passing))}
              {inHome && sumByCurrency(passing).length > 1 && <div className="soft">≈{formatAmount(inHome, true)}</div>}
            </td>
            <td />
            <td className="figure under" data-said="lapse">
              {namesWords(count(({ lapsingCount }) => lapsingCount))}
            </td>
            <td />
          </tr>
        </tfoot>
      </Chosen>
    </Wide>
  );
}

function AccountLine({
  funding,
  isChosen,
  onChoose,
}: {
  funding: FundingView;
  isChosen: boolean;
  onChoose: (accountId: number) => void;
}) {
  const { style } = useLedger();
  const { account, months, firstFailure, lapsingCount, leastTopUp, chargeCount, notKnown } = funding;
  const money = (minor: number) => formatAmount(amount(minor, account.currency));
  const passes =
    notKnown === 0
      ? 'every charge passes'
      : notKnown === chargeCount
        ? 'not known whether they pass'
        : `not known for ${notKnown} of them`;
  return (
    <tr data-chosen={isChosen}>
      <td>
        <Button data-kind="plain" aria-pressed={isChosen} onPress={() => onChoose(account.id)}>
          {account.label}
        </Button>
      </td>
      <td className="figure under" data-said="balance">
        {account.balanceMinor === null ? '–' : money(account.balanceMinor)}
      </td>
      <td className="figure" data-said="charges">
        {chargeCount}
      </td>
      <td className="figure under" data-said="will pass">
        {money(months.reduce((sum, month) => sum + month.passingMinor, 0))}
      </td>
      <td className="sentence">
        {firstFailure ? (
          <span className="caution">
            {dayWords(firstFailure.at, style)}: {causeWords(firstFailure.cause)}
          </span>
        ) : (
          <span className="soft">{chargeCount === 0 ? 'nothing is charged' : passes}</span>
        )}
      </td>
      <td className="figure under" data-said="lapse">
        {lapsingCount > 0 ? <span className="caution">{namesWords(lapsingCount)}</span> : '–'}
      </td>
      <td className="figure under" data-said="top up">
        {leastTopUp ? `${money(leastTopUp.minor)} by ${dayWords(leastTopUp.by, style)}` : '–'}
      </td>
    </tr>
  );
}
