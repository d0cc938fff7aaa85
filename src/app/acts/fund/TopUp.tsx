'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { type Amount, amount } from '@/core/money';
import { AmountField } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { useLedger } from '../../frame/LedgerProvider';
import { useChangeFunds, WhoTells } from './changeFunds';

/** Pays into an account from within a run; what is missing stands there already. */
export function TopUp({ accountId, missingMinor }: { accountId: number; missingMinor: number }) {
  const { meta } = useLedger();
  const [isOpen, setOpen] = useState(false);
  const account = meta?.rules.accounts.find(({ id }) => id === accountId);
  if (!account) return null;
  return (
    <>
      <Button data-kind="plain" onPress={() => setOpen(true)} aria-label={`Top up ${account.label}`}>
        Top up…
      </Button>
      <Dialog title={`Top up ${account.label}`} isOpen={isOpen} onClose={() => setOpen(false)}>
        <TopUpForm account={account} missing={amount(missingMinor, account.currency)} onDone={() => setOpen(false)} />
      </Dialog>
    </>
  );
}

function TopUpForm({
  account,
  missing,
  onDone,
}: {
  account: {
    readonly id: number;
    readonly label: string;
    readonly registrar: string;
    readonly currency: string;
    readonly linked: boolean;
  };
  missing: Amount;
  onDone: () => void;
}) {
  const router = useRouter();
  const [sum, setSum] = useState<Amount | null>(missing);
  const { busy, change } = useChangeFunds(() => {
    router.refresh();
    onDone();
  });
  const isReady = sum !== null && sum.minor > 0;

  return (
    <>
      <AmountField
        label={`Amount, ${account.currency}`}
        currency={account.currency}
        amount={missing}
        onChange={(_, read) => setSum(read)}
      />
      <WhoTells account={account} />
      <Actions>
        <Button
          data-kind="primary"
          isDisabled={!isReady || busy}
          onPress={() => sum && void change({ accountId: account.id, topUpMinor: sum.minor })}
        >
          {account.linked ? `Top up ${isReady ? formatAmount(sum) : ''}` : 'It is paid in: write it down'}
        </Button>
        <Button onPress={onDone}>Cancel</Button>
      </Actions>
    </>
  );
}
