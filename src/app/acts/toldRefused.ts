import { isRefusal, type Refusal } from '@/core/refusal';
import { report } from '@/ui/overlay/Toasts';

/** Whether something was refused; why is told then. For what is done by a button outside any form. */
export function toldRefused<T>(answer: T | Refusal): answer is Refusal {
  if (!isRefusal(answer)) return false;
  report({ text: answer.message, problem: true });
  return true;
}
