'use client';
import { Choice } from '@/ui/controls/Field';
import { Link } from '@/ui/controls/Link';
import { formatAmount } from '@/ui/text/figures';
import { Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { amountsWords, dayWords } from '@/ui/text/words';
import type { Review, ReviewAccount } from '@/usecases/acquiring/review';
import { TopUp } from '../../acts/fund/TopUp';
import { useLedger } from '../../frame/LedgerProvider';
import { namePage } from '../../frame/pages';

interface AccountsPartProps {
  readonly review: Review;
  readonly payBy: ReadonlyMap<number, string>;
  readonly onPayBy: (accountId: number, label: string) => void;
}

/** What each account is charged, what that leaves, and the coming charge that would fail by it. */
export function AccountsPart({ review, payBy, onPayBy }: AccountsPartProps) {
  const { homeCurrency } = useLedger();
  const others = review.accounts.some(({ currency }) => currency !== homeCurrency);
  return (
    <Section aria-label="What it comes to">
      <h2>
        In all {review.homeTotal === null ? 'not known in one currency' : formatAmount(review.homeTotal)}
        {others && review.homeTotal !== null && ' by today’s rates'}
      </h2>
      <Wide>
        <Ruled aria-label="What each account is charged">
          <thead>
            <tr>
              <th>Account</th>
              <th className="figure">Charged</th>
              <th className="figure">Balance</th>
              <th className="figure">Left</th>
              <th>Paid by</th>
              <th>What fails by it</th>
            </tr>
          </thead>
          <tbody>
            {review.accounts.map((account) => (
              <AccountRow
                key={account.id}
                account={account}
                method={payBy.get(account.id) ?? ''}
                onMethod={(label) => onPayBy(account.id, label)}
              />
            ))}
          </tbody>
        </Ruled>
      </Wide>
    </Section>
  );
}

interface AccountRowProps {
  readonly account: ReviewAccount;
  readonly method: string;
  readonly onMethod: (label: string) => void;
}

function AccountRow({ account, method, onMethod }: AccountRowProps) {
  const { style } = useLedger();
  const { id, label, linked, totals, balance, after, means, starved } = account;
  const missing = after !== null && after.minor < 0 ? -after.minor : 0;
  return (
    <tr>
      <td>
        {label}
        <div className="soft">{linked ? 'by link' : 'by hand: you do it there'}</div>
      </td>
      <td className="figure">{amountsWords(totals)}</td>
      <td className="figure">{balance === null ? 'not known' : formatAmount(balance)}</td>
      <td className={missing > 0 ? 'figure caution' : 'figure'}>
        {after === null ? 'not known' : formatAmount(after)}
        {missing > 0 && <TopUp accountId={id} missingMinor={missing} />}
      </td>
      <td>
        {means.length > 1 ? (
          <Choice
            label={`Paid by, at ${label}`}
            hideLabel
            value={method}
            onChange={onMethod}
            options={[{ value: '', text: 'its usual order' }, ...means.map((one) => ({ value: one, text: one }))]}
          />
        ) : (
          (means[0] ?? 'not known')
        )}
      </td>
      <td>
        {starved === null ? (
          <span className="soft">nothing that is known of</span>
        ) : (
          <>
            <Link href={namePage(starved.ascii)} className="name">
              {starved.ascii}
            </Link>{' '}
            on {dayWords(starved.at, style)}
            {starved.cost && `, ${formatAmount(starved.cost)}`}
          </>
        )}
      </td>
    </tr>
  );
}
