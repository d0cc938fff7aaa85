'use client';
import styled from 'styled-components';
import type { Refusal } from '@/core/refusal';
import type { ListingSums } from '@/core/selling';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { sentWords } from '@/ui/text/sellingWords';
import { amountsWords } from '@/ui/text/words';
import { useSave } from '../../acts/useSave';
import type { ChosenListings } from '../../frame/listingsWork';
import { seenLiveAction, sendListingsAction, withdrawAction } from '../actions';

const Foot = styled.footer`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 20px;
  min-height: 44px;
  padding: 4px 18px;
  background: var(--totals);
  color: var(--on-totals);
  & > div { margin-left: auto; display: flex; gap: 8px; }
`;

interface ListingsFootProps {
  readonly shown: ListingSums;
  /** `null` while nothing is chosen. */
  readonly chosen: ChosenListings | null;
  readonly onDone: () => void;
}

/** The totals of what is shown or chosen, and what can be done with the chosen. */
export function ListingsFoot({ shown, chosen, onDone }: ListingsFootProps) {
  // What is listed is read anew with the ledger.
  const { ask } = useSave({ ledger: true });
  const { count, proceeds, notKnown } = chosen?.sums ?? shown;
  const listingIds = chosen?.ids ?? [];
  const act = async <T,>(asked: Promise<T | Refusal>, words: (done: T) => string) => {
    if ((await ask(asked, words)) !== null) onDone();
  };
  return (
    <Foot aria-label="Totals">
      <b>
        {count.toLocaleString('en')} {chosen ? 'chosen' : 'listings'}
      </b>
      <span>
        proceeds <b>{amountsWords(proceeds, true)}</b>
        {notKnown > 0 && `, ${notKnown.toLocaleString('en')} not known`}
      </span>
      {chosen && (
        <div>
          <ButtonLink href={`/selling/price?names=${chosen.nameIds.join(',')}`}>Price…</ButtonLink>
          <Button onPress={() => act(sendListingsAction({ listingIds }), sentWords)}>Send drafts</Button>
          <Button onPress={() => act(seenLiveAction({ listingIds }), (n) => `${n} noted as seen live today.`)}>
            Seen live
          </Button>
          <Button onPress={() => act(withdrawAction({ listingIds }), (n) => `${n} withdrawn.`)}>Withdraw</Button>
        </div>
      )}
    </Foot>
  );
}
