'use client';
import { useRouter } from 'next/navigation';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { formatAmount } from '@/ui/text/figures';
import { Notice } from '@/ui/text/Sheet';
import { hourWords } from '@/ui/text/words';
import type { ConfirmationAnswer, Waiting } from '@/usecases/people/confirmations';
import { toldRefused } from '../acts/toldRefused';
import { useBusy } from '../acts/useBusy';
import { useLedger } from '../frame/LedgerProvider';
import { settleConfirmationAction } from './actions';

/** What waits for a second person: who looks confirms it, takes his own back, or sees that it waits. */
export function WaitingPart({ waiting }: { waiting: readonly Waiting[] }) {
  const router = useRouter();
  const { style, homeCurrency, reload } = useLedger();
  const [isBusy, during] = useBusy();
  const settle = async (id: number, answer: ConfirmationAnswer) => {
    const said = await during(settleConfirmationAction(id, answer));
    if (!toldRefused(said)) report({ text: said });
    await reload();
    router.refresh();
  };
  return waiting.map((one) => (
    <Notice key={one.id} role="status">
      <p>
        <strong>{one.what}</strong>
        {one.amountMinor ? `, for ${formatAmount({ minor: one.amountMinor, currency: homeCurrency })} at the most` : ''}
        {one.why === 'above the limit' ? ', above a limit' : ''}: asked for by {one.askedByName},{' '}
        {hourWords(one.askedAt, style)}.{' '}
        {one.state === 'confirming'
          ? `Confirmed by ${one.settledByName}; how it ended is not known. Look at what it is about.`
          : one.may === 'settle'
            ? 'It is done when you confirm it.'
            : 'It waits for somebody else to confirm it.'}
      </p>
      <Actions>
        {one.may === 'settle' && (
          <>
            <Button
              data-kind="primary"
              aria-label={`Confirm: ${one.what}`}
              isDisabled={isBusy}
              onPress={() => void settle(one.id, 'confirm')}
            >
              Confirm
            </Button>
            <Button
              aria-label={`Decline: ${one.what}`}
              isDisabled={isBusy}
              onPress={() => void settle(one.id, 'decline')}
            >
              Decline
            </Button>
          </>
        )}
        {one.may === 'withdraw' && one.state === 'waiting' && (
          <Button
            aria-label={`Take back: ${one.what}`}
            isDisabled={isBusy}
            onPress={() => void settle(one.id, 'withdraw')}
          >
            Take it back
          </Button>
        )}
      </Actions>
    </Notice>
  ));
}
