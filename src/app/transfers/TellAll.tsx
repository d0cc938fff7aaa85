'use client';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { namesWords } from '@/ui/text/words';
import type { TransferView } from '@/usecases/moving/underWay';
import { useSave } from '../acts/useSave';
import { tellTransfersAction } from './actions';
import { PLAIN } from './TellForm';

/** Where several names wait for the same, it is told for all of them at once. */
export function TellAll({ transfers }: { transfers: readonly TransferView[] }) {
  const { ask, isBusy } = useSave({ ledger: true });
  const groups = [...new Set(transfers.map(({ stage }) => stage))].flatMap((stage) => {
    const alike = transfers.filter((one) => one.stage === stage);
    const plain = PLAIN[stage];
    return plain && alike.length > 1 ? [{ ...plain, ids: alike.map(({ id }) => id) }] : [];
  });
  if (groups.length === 0) return null;
  return (
    <Actions>
      {groups.map(({ what, text, ids }) => (
        <Button
          key={what}
          isDisabled={isBusy}
          onPress={() => void ask(tellTransfersAction(ids.map((id) => ({ id, what }))), 'Taken down.')}
        >
          {text}, for all {namesWords(ids.length)}
        </Button>
      ))}
    </Actions>
  );
}
