'use client';
import { ButtonLink } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { AccountSentence } from '@/ui/text/RuleSentences';
import { Page, Ruled } from '@/ui/text/Sheet';
import { Empty } from '@/ui/text/States';
import { Wide } from '@/ui/text/Wide';
import { dayWords } from '@/ui/text/words';
import type { HeldAccount } from '@/usecases/accounts/accounts';
import { useLedger } from '../../frame/LedgerProvider';
import { useTitle } from '../../frame/PageTitle';

/** Every account, with the rules by which it charges. */
export function AccountsScreen({ accounts }: { accounts: readonly HeldAccount[] }) {
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
        <Ruled data-list>
          <thead>
            <tr>
              <th>Account</th>
              <th className="figure">Names</th>
              <th>How it charges</th>
              <th className="figure">Balance</th>
            </tr>
          </thead>
          <tbody>
            {accounts.map((account) => (
              <tr key={account.id}>
                <td>
                  <Link href={`/setup/accounts/${account.id}`} className="decides">
                    {account.label}
                  </Link>
                  {account.registrar !== account.label && <div className="soft">{account.registrar}</div>}
                </td>
                <td className="figure" data-said="names">
                  {account.names.toLocaleString('en')}
                </td>
                <td className="sentence">
                  <AccountSentence account={account} />
                  {!account.rulesKnown && <span className="caution">; these are usual rules: check them</span>}
                </td>
                <td className="figure" data-said="balance">
                  {account.balanceMinor === null ? (
                    <span className="soft">not said</span>
                  ) : (
                    formatAmount({ minor: account.balanceMinor, currency: account.currency })
                  )}
                  {account.balanceAt !== null && <div className="soft">{dayWords(account.balanceAt, style)}</div>}
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      </Wide>
      <Actions>{add}</Actions>
    </Page>
  );
}
