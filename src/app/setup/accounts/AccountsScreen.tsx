'use client';
import Link from 'next/link';
import { formatMonth, type Month } from '@/core/time';
import { ButtonLink } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Page, Ruled } from '@/ui/text/Sheet';
import { Empty } from '@/ui/text/States';
import { Wide } from '@/ui/text/Wide';
import { dayWords } from '@/ui/text/words';
import type { AccountRow } from '@/usecases/accounts/accounts';
import { useTitle } from '../../frame/Frame';
import { useLedger } from '../../frame/LedgerProvider';

/** Every account, with the rules by which it charges. */
export function AccountsScreen({ accounts }: { accounts: readonly AccountRow[] }) {
  useTitle('Accounts', 'how each registrar charges');
  const { style } = useLedger();
  const add = (
    <ButtonLink href="/setup/accounts/new" data-kind="primary">
      New account
    </ButtonLink>
  );
  if (accounts.length === 0) {
    return (
      <Empty
        title="No account yet."
        text="An account is made on the way when a list of names says one, or here by hand."
      >
        {add}
      </Empty>
    );
  }
  return (
    <Page>
      <Wide>
        <Ruled>
          <thead>
            <tr>
              <th>Account</th>
              <th>Registrar</th>
              <th className="figure">Names</th>
              <th>Charges</th>
              <th>Late window (grace period)</th>
              <th>Pays by</th>
              <th className="figure">Balance</th>
              <th>Rules</th>
            </tr>
          </thead>
          <tbody>
            {accounts.map((account) => (
              <tr key={account.id}>
                <td>
                  <Link href={`/setup/accounts/${account.id}`}>{account.label}</Link>
                </td>
                <td>{account.registrar}</td>
                <td className="figure">{account.names.toLocaleString('en')}</td>
                <td>{account.leadDays === 0 ? 'on the day' : `${account.leadDays} days before`}</td>
                <td>
                  {account.lateDays === 0 ? 'none' : `${account.lateDays} days`}
                  {account.lateFeeMinor > 0 &&
                    `, ${formatAmount({ minor: account.lateFeeMinor, currency: account.currency })} fee`}
                </td>
                <td>
                  {account.paymentMethods
                    .map(
                      (method) =>
                        `${method.label}${method.endsMonth ? ` to ${formatMonth(method.endsMonth as Month)}` : ''}`,
                    )
                    .join(', then ') || <span className="soft">not said</span>}
                </td>
                <td className="figure">
                  {account.balanceMinor === null ? (
                    <span className="soft">not said</span>
                  ) : (
                    formatAmount({ minor: account.balanceMinor, currency: account.currency })
                  )}
                  {account.balanceAt !== null && <div className="soft">{dayWords(account.balanceAt, style)}</div>}
                </td>
                <td>{account.rulesKnown ? 'as set' : <span className="caution">usual ones: check</span>}</td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      </Wide>
      <Actions>{add}</Actions>
    </Page>
  );
}
