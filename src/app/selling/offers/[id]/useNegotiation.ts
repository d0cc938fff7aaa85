'use client';
import { useState } from 'react';
import { askedPrice, betweenAsking, middleOf, netProceedsOf, priceForProceeds } from '@/core/selling';
import { formatAmount } from '@/ui/text/figures';
import type { Negotiation } from '@/usecases/selling/offers';
import { useSave } from '../../../acts/useSave';
import { answerOfferAction } from '../../actions';

/** What a thread comes to where it is answered: the figures that count, what each would bring, and answering. */
export function useNegotiation(about: Negotiation) {
  const { thread, listing, cost, fees, unitMinor, now } = about;
  const { currency, figures } = thread;
  /** The profit that is wanted at least, in minor units; `null` while it cannot be read. */
  const [margin, setMargin] = useState<number | null>(0);
  const { save, refused } = useSave();
  const live = figures.findLast(({ state }) => state === 'live');
  const isOpen = thread.state === 'open' && live !== undefined && !(live.lapsesAt !== null && live.lapsesAt <= now);
  const last = (by: 'buyer' | 'owner') => figures.findLast((figure) => figure.by === by)?.minor ?? null;
  const asking = listing?.currency === currency ? askedPrice(listing) : null;
  const money = (minor: number) => formatAmount({ minor, currency }, true);

  const answer = (kind: 'accept' | 'decline', words: string) =>
    save(answerOfferAction({ threadId: thread.id, figureId: live?.id, answer: kind }), words);
  const counter = (amount: string, until: string) =>
    save(
      answerOfferAction({
        threadId: thread.id,
        figureId: live?.id,
        answer: 'counter',
        amount,
        until,
      }),
      'Your figure is on the table.',
    );

  return {
    live,
    isMine: isOpen && live.by === 'buyer',
    isTheirs: isOpen && live.by === 'owner',
    buyers: last('buyer'),
    owners: last('owner'),
    asking,
    middle: middleOf(figures, unitMinor) ?? betweenAsking(last('buyer'), asking, unitMinor),
    margin,
    setMargin,
    floor:
      cost === null || fees === null || margin === null ? null : priceForProceeds(cost.minor + margin, fees, unitMinor),
    money,
    /** What a figure would bring, in words. */
    proceedsWords(minor: number): string {
      if (fees === null) return 'what the marketplace keeps is not known: no rate';
      const { proceedsMinor } = netProceedsOf(minor, fees);
      return cost === null
        ? `proceeds ${money(proceedsMinor)}`
        : `proceeds ${money(proceedsMinor)}, profit ${money(proceedsMinor - cost.minor)}`;
    },
    refused,
    save,
    answer,
    counter,
  };
}

export type NegotiationState = ReturnType<typeof useNegotiation>;
