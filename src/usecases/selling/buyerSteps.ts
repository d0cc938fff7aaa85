import type { Refusal } from '@/core/refusal';
import { type Handover, refuseStage } from '@/core/selling';
import type { Transaction } from '@/database/pool';
import { type SaleRow, updateSale } from '@/database/sales';
import type { Deps } from '../deps';
import { stepTo } from './sales';

/** Takes down what the buyer himself says of a sale that is locked: where the name is to go, or that he has it. */
export async function buyerStepsSale(
  tx: Transaction,
  deps: Deps,
  sale: SaleRow,
  step:
    | { readonly to: 'buyer known'; readonly handover: Handover; readonly account: string }
    | { readonly to: 'arrived' },
): Promise<SaleRow | Refusal> {
  const refused = refuseStage(sale.stage, step.to);
  if (refused) return refused;
  if (step.to === 'buyer known') await updateSale(tx, sale.id, { handover: step.handover, buyerAccount: step.account });
  return stepTo(tx, deps, sale, step.to, 'buyer');
}
