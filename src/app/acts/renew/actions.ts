'use server';
import { isRefusal, type Refusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { planRenewal } from '@/usecases/orders/plan';

/** Plans a renewal or restore of the chosen names, one term each. Answers its number. */
export async function planRenewalAction(
  items: readonly { nameId: number; years: number }[],
  action: 'renew' | 'restore' = 'renew',
): Promise<string | Refusal> {
  const planned = await planRenewal(deps(), { items, action });
  return isRefusal(planned) ? planned : planned.renewal.id;
}
