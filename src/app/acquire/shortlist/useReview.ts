import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useState } from 'react';
import { isRefusal } from '@/core/refusal';
import { report } from '@/ui/overlay/Toasts';
import type { Review, ReviewItem } from '@/usecases/acquiring/review';
import { useBusy } from '../../acts/useBusy';
import { useLedgerChange } from '../../frame/LedgerProvider';
import { registerAction, reviewAction } from '../actions';

/** What is chosen for one name. */
export interface Choice {
  readonly accountId?: number;
  readonly years?: number;
  readonly privacy?: boolean;
  readonly autoRenew?: boolean;
  readonly nameServers?: string;
}

/** A review of these names, made anew with every choice, and the order that comes of it. Registrars are asked once the page is there. */
export function useReview(names: readonly string[]) {
  const router = useRouter();
  const [review, setReview] = useState<Review | null>(null);
  const [choices, setChoices] = useState<ReadonlyMap<string, Choice>>(new Map());
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [payBy, setPayBy] = useState<ReadonlyMap<number, string>>(new Map());
  const [isBusy, during] = useBusy();
  const items = review?.items ?? [];

  const key = names.join(' ');
  const read = useCallback(
    async (next: ReadonlyMap<string, Choice>) => {
      const found = await during(
        reviewAction({ choices: key.split(' ').map((ascii) => ({ ascii, ...next.get(ascii) })) }),
      );
      if (isRefusal(found)) report({ text: found.message, problem: true });
      else setReview(found);
    },
    [key, during],
  );
  useEffect(() => void read(new Map()), [read]);
  // Money that was paid in meanwhile, or a price that was set, counts.
  useLedgerChange(useCallback(() => void read(choices), [read, choices]));
  const choose = (ascii: string, change: Choice) => {
    const next = new Map(choices).set(ascii, { ...choices.get(ascii), ...change });
    setChoices(next);
    void read(next);
  };
  const isIn = ({ wanted, price, problem }: ReviewItem) => !left.has(wanted.ascii) && price !== null && problem === '';
  const register = async (key: string) => {
    const run = await during(
      registerAction({
        key,
        payBy: [...payBy].map(([id, label]) => `${id} ${label}`),
        items: items.filter(isIn).map(({ wanted, accountId, years, privacy, autoRenew, nameServers, price }) => ({
          ascii: wanted.ascii,
          accountId,
          years,
          privacy,
          autoRenew,
          nameServers,
          agreedMinor: price?.total.minor ?? 0,
        })),
      }),
    );
    if (isRefusal(run)) {
      report({ text: run.message, problem: true });
      await read(choices);
      return false;
    }
    router.push('/acquire/registered');
    return true;
  };
  return {
    review,
    items,
    isBusy,
    choose,
    isIn,
    isLeft: (ascii: string) => left.has(ascii),
    leave: (ascii: string, isOut: boolean) => {
      const next = new Set(left);
      if (isOut) next.add(ascii);
      else next.delete(ascii);
      setLeft(next);
    },
    payBy,
    setPayBy: (id: number, label: string) => setPayBy(new Map(payBy).set(id, label)),
    readAgain: () => read(choices),
    register,
  };
}
