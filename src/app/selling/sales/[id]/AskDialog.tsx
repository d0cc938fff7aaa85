'use client';
import { useState } from 'react';
import type { SaleStage } from '@/core/selling';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { dayWords } from '@/ui/text/words';
import type { Statement } from '@/usecases/selling/statement';
import { useLedger } from '../../../frame/LedgerProvider';
import { STEP_WORDS } from './stepWords';
import type { SaleSteps } from './useSaleSteps';

/** What is asked before it is done: a step, or the handover by link. */
export type Asking = SaleStage | 'by link' | null;

interface AskDialogProps {
  readonly sale: Statement['sale'];
  readonly asking: Asking;
  readonly steps: SaleSteps;
  readonly onClose: () => void;
}

/** The one question before something that cannot be taken back. */
export function AskDialog({ asking, onClose, ...rest }: AskDialogProps) {
  return (
    <Dialog title={titleOf(asking)} isOpen={asking !== null} onClose={onClose}>
      {asking === 'by link' ? (
        <HandOverQuestion {...rest} onClose={onClose} />
      ) : asking !== null ? (
        <StepQuestion {...rest} to={asking} onClose={onClose} />
      ) : null}
    </Dialog>
  );
}

function titleOf(asking: Asking): string {
  if (asking === null) return '';
  if (asking === 'by link') return 'Hand it over now?';
  return asking === 'done' ? 'Close this sale?' : `${STEP_WORDS[asking]}?`;
}

const priceWords = ({ priceMinor, currency }: Statement['sale']) => formatAmount({ minor: priceMinor, currency }, true);

function HandOverQuestion({ sale, steps, onClose }: Omit<AskDialogProps, 'asking'>) {
  const { style } = useLedger();
  return (
    <>
      <p>
        <span className="name">{sale.unicode}</span> goes to {sale.buyer},{' '}
        {sale.handover === 'push' ? 'account' : 'registrar'} <b>{sale.buyerAccount}</b>, for {priceWords(sale)}. This
        cannot be taken back.
      </p>
      <p className="soft">
        If you do nothing{sale.dueAt !== null && `, it is overdue from ${dayWords(sale.dueAt, style)}, and`} the buyer
        may ask for the money back.
      </p>
      <Actions>
        <Button
          data-kind="primary"
          isDisabled={steps.isBusy}
          onPress={async () => (await steps.handOver(false)) && onClose()}
        >
          {steps.isBusy ? 'Asking the registrar…' : 'Hand it over'}
        </Button>
        <Button onPress={onClose}>Not yet</Button>
      </Actions>
    </>
  );
}

function StepQuestion({ sale, steps, to, onClose }: Omit<AskDialogProps, 'asking'> & { to: SaleStage }) {
  const [note, setNote] = useState('');
  return (
    <>
      <p>
        {to === 'done'
          ? `${priceWords(sale)} is booked as received, the marketplace’s part as spent. The name leaves the ledger and stays in the books.`
          : to === 'dispute'
            ? 'The sale waits until the dispute is settled. The name stays promised.'
            : 'The sale ends here, and the name may be sold again. Offers that waited are open.'}
      </p>
      <Field label="What happened" value={note} onChange={setNote} />
      <Actions>
        <Button
          data-kind={to === 'done' ? 'primary' : 'caution'}
          isDisabled={steps.isBusy}
          onPress={async () => (await steps.step({ to, note })) && onClose()}
        >
          {STEP_WORDS[to]}
        </Button>
        <Button onPress={onClose}>Not yet</Button>
      </Actions>
    </>
  );
}
