import { isRefusal, type Refusal } from '@/core/refusal';
import type { Done } from '@/usecases/changing';
import { carryOutSwitches } from '@/usecases/links/switches';
import { later } from '../later';

/** Tells the registrars what they were asked to switch, right after the answer. */
export function switchedLater(answer: Done | Refusal): Done | Refusal {
  if (!isRefusal(answer)) later('switching at a registrar', carryOutSwitches);
  return answer;
}
