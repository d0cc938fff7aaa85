import { isRefusal, type Refusal } from '@/core/refusal';

/** What was answered, where a refusal would be a fault of the test. */
export function unrefused<T>(answer: T | Refusal): T {
  if (isRefusal(answer)) throw new Error(`${answer.code}: ${answer.message}`);
  return answer;
}
