import { isRefusal, type Refusal } from '@/core/refusal';
import { report } from '@/ui/overlay/Toasts';

/** What a command did, as far as a screen reports it. */
interface Reported {
  readonly batchId: number | null;
  readonly changed: number;
  readonly summary: string;
}

/** Reports what a command did or why it was refused. Answers whether it was done. `undo` takes the batch back. */
export function reportDone(answer: Reported | Refusal, undo: ((batchId: number) => void) | null): answer is Reported {
  if (isRefusal(answer)) {
    report({ text: answer.message, problem: true });
    return false;
  }
  const { batchId, changed, summary } = answer;
  report({
    text: changed === 0 ? 'Nothing differed, so nothing was changed.' : `${summary}.`,
    ...(undo && batchId !== null ? { undo: () => undo(batchId) } : {}),
  });
  return true;
}
