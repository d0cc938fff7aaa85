import { isRefusal } from '@/core/refusal';
import { report } from '@/ui/overlay/Toasts';
import { useLedger } from '../../frame/LedgerProvider';
import { useBusy } from '../useBusy';
import { changeFundsAction } from './actions';

/** Changes what an account pays by, says what came of it, and then goes on. */
export function useChangeFunds(onDone: () => void) {
  const { reload } = useLedger();
  const [busy, during] = useBusy();
  const change = async (request: Parameters<typeof changeFundsAction>[0]) => {
    const answer = await during(changeFundsAction(request));
    if (isRefusal(answer)) {
      report({ text: answer.message, problem: true });
      return;
    }
    report({ text: answer });
    await reload();
    onDone();
  };
  return { busy, change };
}

/** Who tells the registrar: the program over its link, or a person. */
export function WhoTells({
  account,
}: {
  account: { readonly label: string; readonly registrar: string; readonly linked: boolean };
}) {
  const where = account.registrar || account.label;
  return (
    <p className="soft">
      {account.linked
        ? `The program tells ${where} by its link.`
        : `Do it at ${where} itself first; here it is only written down.`}
    </p>
  );
}
