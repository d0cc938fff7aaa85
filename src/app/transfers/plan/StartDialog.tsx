'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { isRefusal } from '@/core/refusal';
import { formatInstant } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { namesWords } from '@/ui/text/words';
import { useBusy } from '../../acts/useBusy';
import { useLedger } from '../../frame/LedgerProvider';
import type { WaveView } from '../../frame/views';
import { startTransfersAction } from '../actions';
import { useMoney } from './useMoney';

interface StartDialogProps {
  readonly waves: readonly WaveView[];
  readonly onClose: () => void;
}

/** Says what will be done at the registrars, and for how much, before any of it is. */
export function StartDialog({ waves, onClose }: StartDialogProps) {
  const router = useRouter();
  const { reload } = useLedger();
  const money = useMoney();
  const [isBusy, during] = useBusy();
  // One key for each opening: pressed twice, it is begun once.
  const [key] = useState(() => crypto.randomUUID());
  const moves = waves.flatMap((wave) => wave.moves.map((move) => ({ ...move, day: wave.at })));
  const cost = waves.reduce((sum, { costMinor }) => sum + costMinor, 0);
  const start = async () => {
    const items = moves.map(({ nameId, accountId, day }) => ({
      nameId,
      toId: accountId,
      notBefore: formatInstant(day),
    }));
    const answer = await during(startTransfersAction({ items }, key));
    if (isRefusal(answer)) return report({ text: answer.message, problem: true });
    report({
      text: `${namesWords(answer.names)} on the way.${answer.left > 0 ? ` ${namesWords(answer.left)} left out: on the way already.` : ''}`,
    });
    await reload();
    router.push('/transfers');
  };
  return (
    <Dialog title={`Move ${namesWords(moves.length)}?`} isOpen={moves.length > 0} onClose={onClose}>
      <p>
        At the old registrars auto-renew goes off and the lock comes off, and each name gets a code. At the new ones the
        transfers are requested, for {money(cost)} in all as the price lists say, never for more.
      </p>
      <p>
        Accounts with a link are dealt with by the program; for the others you are told what to do, step by step. What
        is refused or rejected is put back as it was.
      </p>
      <Actions>
        <Button data-kind="primary" isDisabled={isBusy} onPress={() => void start()}>
          Move {namesWords(moves.length)} for {money(cost)}
        </Button>
        <Button onPress={onClose}>Cancel</Button>
      </Actions>
    </Dialog>
  );
}
