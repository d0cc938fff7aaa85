'use client';
import { useEffect, useState } from 'react';
import { type Amount, amount } from '@/core/money';
import { addDays } from '@/core/time';
import { formatAmount } from '@/ui/text/figures';
import { causeWords, dayWords } from '@/ui/text/words';
import type { QuotedAccount, RenewalQuote } from '@/usecases/orders/quote';
import { TopUp } from '../../acts/fund/TopUp';
import { useLedger } from '../../frame/LedgerProvider';
import type { FundingView } from '../../frame/views';

const LOOK_AHEAD_DAYS = 60;

/** Whether an account's balance holds what is asked for, and with all other charges that are coming. */
export function MoneyThere({
  quote,
  account,
  totals,
  payBy,
}: {
  quote: RenewalQuote;
  account: QuotedAccount['account'];
  totals: readonly Amount[];
  /** The payment method that was chosen; `null` for the usual order. */
  payBy: string | null;
}) {
  const { worker, meta, today, style } = useLedger();
  const [after, setAfter] = useState<FundingView | null>(null);
  const own = totals.find((total) => total.currency === account.currency);
  const asked = own?.minor ?? 0;
  const payer =
    payBy === null ? account.paymentMethods[0] : account.paymentMethods.find(({ label }) => label === payBy);
  // As the ledger knows it now: it may have been topped up since the quote.
  const balanceMinor = meta?.rules.accounts.find(({ id }) => id === account.id)?.balanceMinor ?? account.balanceMinor;
  const paysByBalance = balanceMinor !== null && payer?.kind === 'balance';

  useEffect(() => {
    if (!worker || !meta || !paysByBalance || asked === 0) return;
    let stale = false;
    const renewed = quote.items.flatMap(({ nameId, accountId, newEnd, refusal }) =>
      accountId === account.id && newEnd && !refusal ? [{ nameId, newEnd }] : [],
    );
    const thought = { accountId: account.id, topUpMinor: -asked, card: null, renewed };
    void worker.whatIf(thought, addDays(today, LOOK_AHEAD_DAYS)).then((seen) => !stale && setAfter(seen));
    return () => {
      stale = true;
    };
  }, [worker, meta, quote, account.id, asked, paysByBalance, today]);

  if (balanceMinor === null) return null;
  const balance = amount(balanceMinor, account.currency);
  const short = paysByBalance ? asked - balance.minor : 0;
  const foreign = totals.find((total) => total.currency !== account.currency);
  return (
    <>
      <span className="soft">balance {formatAmount(balance)}</span>
      {foreign && (
        <span className="caution">
          {' '}
          the price is in {foreign.currency}, the account in {account.currency}
        </span>
      )}
      {short > 0 ? (
        <>
          <span className="caution"> {formatAmount(amount(short, account.currency))} short</span>{' '}
          <TopUp accountId={account.id} missingMinor={short} />
        </>
      ) : (
        after?.firstFailure && (
          <span className="caution">
            {' '}
            with the charges coming, the one of {dayWords(after.firstFailure.at, style)} fails (
            {causeWords(after.firstFailure.cause)})
          </span>
        )
      )}
    </>
  );
}
