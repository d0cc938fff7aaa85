'use client';
import { Link } from '@/ui/controls/Link';
import { formatAmount } from '@/ui/text/figures';
import { Ruled, Section } from '@/ui/text/Sheet';
import { amountsWords, namesWords } from '@/ui/text/words';
import { useLedger } from '../../frame/LedgerProvider';
import { namePage } from '../../frame/pages';
import type { PlanView } from '../../frame/views';
import { LEFT_WORDS } from './planWords';

/** The accounts that names leave: what still is charged there, and what is left of their balance. */
export function LeavingPart({ accounts }: { accounts: PlanView['accounts'] }) {
  const { meta } = useLedger();
  if (accounts.length === 0) return null;
  return (
    <Section aria-label="Accounts that names leave">
      <h2>What is left behind</h2>
      <Ruled>
        <thead>
          <tr>
            <th>Account</th>
            <th className="figure">Leaving</th>
            <th className="figure">Staying</th>
            <th className="figure">Still charged before</th>
            <th className="figure">Left of its balance</th>
          </tr>
        </thead>
        <tbody>
          {accounts.map(({ accountId, leaving, staying, charges, balanceMinor }) => {
            const account = meta?.rules.accounts.find(({ id }) => id === accountId);
            const balance =
              balanceMinor === null || !account
                ? 'not known'
                : formatAmount({ minor: balanceMinor, currency: account.currency });
            return (
              <tr key={accountId}>
                <td>
                  <Link href={`/setup/accounts/${accountId}`}>{account?.label}</Link>
                </td>
                <td className="figure">{leaving}</td>
                <td className="figure">{staying}</td>
                <td className="figure">{charges.length === 0 ? 'nothing' : amountsWords(charges)}</td>
                <td className="figure">
                  {balance}
                  {staying === 0 && balanceMinor !== null && balanceMinor > 0 && (
                    <div className="soft">nothing is left there to use it: renew with it first, or ask for it back</div>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </Ruled>
    </Section>
  );
}

/** The names that stay, and why. */
export function LeftPart({ left }: { left: PlanView['left'] }) {
  if (left.length === 0) return null;
  return (
    <Section aria-label="Left where they are">
      <h2>Left where they are</h2>
      {left.map(({ why, count, names }) => (
        <details key={why}>
          <summary>
            {namesWords(count)}: {LEFT_WORDS[why]}
          </summary>
          <p>
            {names.map(({ nameId, ascii, unicode }, i) => (
              <span key={nameId}>
                {i > 0 && ', '}
                <Link href={namePage(ascii)} className="name">
                  {unicode}
                </Link>
              </span>
            ))}
            {count > names.length && ` and ${namesWords(count - names.length)} more`}
          </p>
        </details>
      ))}
    </Section>
  );
}
