'use client';
import { Button } from '@/ui/controls/Button';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { useLedger } from '../../frame/LedgerProvider';
import type { RowView } from '../../frame/views';
import { useAct } from '../useAct';
import { refundAction } from './actions';

/** Returning a fresh registration for a refund: at the registrar over its link, or noted as done by hand. */
export function RefundDialog({ row, onClose }: { row: RowView | null; onClose: () => void }) {
  const { meta } = useLedger();
  const { act, isBusy } = useAct();
  const isLinked = meta?.rules.accounts.find((one) => one.id === row?.name.accountId)?.linked === true;
  const refund = async (nameId: number) => {
    await act(() => refundAction({ nameId, doneByHand: !isLinked }));
    onClose();
  };
  return (
    <Dialog title={`Return ${row?.name.unicode ?? ''} for a refund`} isOpen={row !== null} onClose={onClose}>
      {row && (
        <>
          <p>
            {isLinked
              ? 'It is deleted at the registrar at once, available to anyone, and what it cost is credited. Nobody can undo that.'
              : 'Delete it at the registrar first: it is available to anyone then. Confirm here when that is done.'}
          </p>
          <Actions>
            <Button data-kind="primary" isDisabled={isBusy} onPress={() => void refund(row.name.id)}>
              {isLinked ? 'Delete it and take the refund' : 'It is deleted and refunded'}
            </Button>
            <Button onPress={onClose}>Keep it</Button>
          </Actions>
        </>
      )}
    </Dialog>
  );
}
