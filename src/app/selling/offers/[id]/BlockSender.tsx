'use client';
import { Button } from '@/ui/controls/Button';
import { useSave } from '../../../acts/useSave';
import { blockSenderAction } from '../../actions';

/** Hears nothing more of whoever writes from an address; he is not told. */
export function BlockSender({ mail }: { mail: string }) {
  const { ask, isBusy } = useSave();
  return (
    <Button
      data-kind="plain"
      isDisabled={isBusy}
      onPress={() =>
        void ask(blockSenderAction(mail), `Nothing more is heard of ${mail}. Undo it under Setup, Shop window.`)
      }
    >
      Block this sender
    </Button>
  );
}
