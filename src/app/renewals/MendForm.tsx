'use client';
import { useEffect, useState } from 'react';
import type { WhatIf } from '@/core/ledger';
import { amount } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import { type Instant, readMonth } from '@/core/time';
import { AmountField } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { MonthField } from '@/ui/controls/MonthField';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Fields } from '@/ui/text/Sheet';
import { causeWords, dayWords, namesWords } from '@/ui/text/words';
import { useChangeFunds, WhoTells } from '../acts/fund/changeFunds';
import { useLedger } from '../frame/LedgerProvider';
import type { FundingView } from '../frame/views';

interface MendFormProps {
  readonly funding: FundingView;
  readonly until: Instant;
  /** The card that is replaced; `null` to pay in. */
  readonly card: string | null;
  readonly onDone: () => void;
}

/** More money or a new card: what it would change is shown before anything is confirmed. */
export function MendForm({ funding, until, card, onDone }: MendFormProps) {
  const { worker, style } = useLedger();
  const { account } = funding;
  const least = funding.leastTopUp && amount(funding.leastTopUp.minor, account.currency);
  const [sum, setSum] = useState(least);
  const [month, setMonth] = useState('');
  const [then, setThen] = useState<FundingView | null>(null);
  const { busy, change } = useChangeFunds(onDone);
  const topUp = card === null ? (sum?.minor ?? null) : 0;
  const read = month.trim() === '' ? null : readMonth(month);
  const endsMonth = isRefusal(read) ? null : read;
  const ready = card === null ? topUp !== null && topUp > 0 : endsMonth !== null;

  useEffect(() => {
    if (!ready || !worker) {
      setThen(null);
      return;
    }
    const thought: WhatIf = {
      accountId: account.id,
      topUpMinor: topUp ?? 0,
      card: card === null || endsMonth === null ? null : { label: card, endsMonth },
    };
    let stale = false;
    void worker.whatIf(thought, until).then((seen) => !stale && setThen(seen));
    return () => {
      stale = true;
    };
  }, [ready, worker, account.id, topUp, card, endsMonth, until]);

  const confirm = () =>
    change({
      accountId: account.id,
      ...(card === null ? { topUpMinor: topUp } : { card, endsMonth }),
    });

  return (
    <>
      <Fields>
        {card === null ? (
          <AmountField
            label={`Amount, ${account.currency}`}
            currency={account.currency}
            amount={least}
            onChange={(_, read) => setSum(read)}
          />
        ) : (
          <MonthField label="The new card ends" value={month} onChange={setMonth} hint="its last month" />
        )}
      </Fields>
      <p aria-live="polite">
        {then === null
          ? 'Write it to see what it would change.'
          : then.firstFailure
            ? `Then the first charge fails ${dayWords(then.firstFailure.at, style)} (${causeWords(then.firstFailure.cause)})${funding.firstFailure ? ` instead of ${dayWords(funding.firstFailure.at, style)}` : ''}; ${namesWords(then.lapsingCount)} lapse instead of ${funding.lapsingCount}.`
            : `Then every charge until ${dayWords(until, style)} passes${funding.lapsingCount > 0 ? `, and ${namesWords(funding.lapsingCount)} do not lapse` : ''}.`}
      </p>
      <WhoTells account={account} />
      <Actions>
        <Button data-kind="primary" isDisabled={!ready || busy} onPress={() => void confirm()}>
          {card === null
            ? account.linked
              ? `Top up ${ready ? formatAmount(amount(topUp ?? 0, account.currency)) : ''}`
              : 'It is paid in: write it down'
            : account.linked
              ? 'Replace the card'
              : 'It is replaced: write it down'}
        </Button>
        <Button onPress={onDone}>Cancel</Button>
      </Actions>
    </>
  );
}
