'use client';
import { useRouter } from 'next/navigation';
import { isRefusal } from '@/core/refusal';
import { termsOf } from '@/core/selling';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { namesWords } from '@/ui/text/words';
import type { PricingView } from '@/usecases/selling/pricing';
import type { Listed } from '@/usecases/selling/sendListings';
import { useBusy } from '../../acts/useBusy';
import { useLedger } from '../../frame/LedgerProvider';
import { saveListingsAction } from '../actions';
import type { useDrafts } from './useDrafts';

interface SaveRowProps {
  /** How many are chosen, and how many of them are to be mended first. */
  readonly names: number;
  readonly toMend: number;
  readonly where: string | null;
  readonly isBusy: boolean;
  readonly onSave: (send: boolean) => void;
}

/** Listing what is chosen, or keeping it; and what stands in the way. */
export function SaveRow({ names, toMend, where, isBusy, onSave }: SaveRowProps) {
  return (
    <Actions>
      <Button data-kind="primary" isDisabled={isBusy || names === 0} onPress={() => onSave(true)}>
        {isBusy ? 'Listing…' : `List ${namesWords(names)}${where ? ` at ${where}` : ''}…`}
      </Button>
      <Button isDisabled={isBusy || names === 0} onPress={() => onSave(false)}>
        Keep as drafts
      </Button>
      <span className={toMend > 0 ? 'caution' : 'soft'} role="status">
        {names === 0
          ? 'Choose at least one name.'
          : toMend > 0
            ? `${namesWords(toMend)} to mend first: they are kept as drafts.`
            : 'Nothing stands in the way.'}
      </span>
    </Actions>
  );
}

/** Sending the chosen drafts, or keeping them, and saying what came of it. */
export function useSaveListings(
  { names }: PricingView,
  marketplaceId: number | null,
  wanted: () => readonly number[],
  drafts: ReturnType<typeof useDrafts>['drafts'],
) {
  const router = useRouter();
  const { reload } = useLedger();
  const [busy, during] = useBusy();
  const save = async (send: boolean) => {
    const listings = wanted().flatMap((nameId) => {
      const draft = drafts.get(nameId);
      // What is no amount is refused as it was typed.
      return draft
        ? [{ nameId, ...termsOf(draft), reasons: draft.reasons, prices: { ...draft.prices, ...draft.unread } }]
        : [];
    });
    const answer = await during(
      saveListingsAction({ ...(marketplaceId === null ? {} : { marketplaceId }), send, listings }),
    );
    if (isRefusal(answer)) {
      report({ text: answer.message, problem: true });
      return;
    }
    await reload();
    report({ text: savedWords(answer, send), problem: answer.stopped.length > 0 && send });
    const [only] = names;
    router.push(names.length === 1 && only ? `/selling/names/${encodeURIComponent(only.ascii)}` : '/selling/listings');
  };
  return { busy, save };
}

function savedWords({ sent, listingIds, stopped }: Listed, send: boolean): string {
  const done = send ? `${namesWords(sent)} listed.` : `${namesWords(listingIds.length)} kept as drafts.`;
  return stopped.length === 0
    ? done
    : `${done} ${namesWords(stopped.length)} kept as drafts: something is to be mended.`;
}
