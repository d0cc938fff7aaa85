import type { Refusal } from '@/core/refusal';
import type { Handover, SaleStage } from '@/core/selling';
import { useSave } from '../../../acts/useSave';
import { handOverAction, stepSaleAction } from '../../actions';
import { STEP_WORDS } from './stepWords';

/** What is taken down of a sale's way. */
export interface SaleStep {
  readonly to: SaleStage;
  readonly note?: string;
  readonly handover?: Handover;
  readonly buyerAccount?: string;
}

export interface SaleSteps {
  /** Answers whether it was done. */
  step(step: SaleStep): Promise<boolean>;
  /** Over the link, or taken down as done by hand. Answers whether it was done. */
  handOver(byHand: boolean): Promise<boolean>;
  readonly isBusy: boolean;
  readonly refused: Refusal | null;
}

/** The steps of one sale: what concerns a field is kept for it, anything else is told. */
export function useSaleSteps(saleId: number): SaleSteps {
  const { save, ask, isBusy, refused } = useSave({ ledger: true });
  return {
    step: async (step) => {
      const tell = step.to === 'buyer known' ? save : ask;
      return (await tell(stepSaleAction({ saleId, ...step }), `${STEP_WORDS[step.to]}.`)) !== null;
    },
    handOver: async (byHand) => (await ask(handOverAction({ saleId, byHand }), 'Handed over.')) !== null,
    isBusy,
    refused,
  };
}
