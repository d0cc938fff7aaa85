'use client';
import styled from 'styled-components';
import { sumByCurrency } from '@/core/money';
import type { Refusal } from '@/core/refusal';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { sentWords } from '@/ui/text/sellingWords';
import { amountsWords } from '@/ui/text/words';
import type { ListingLine } from '@/usecases/selling/report';
import { useSave } from '../../acts/useSave';
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
  readonly shown: readonly ListingLine[];
  readonly chosen: readonly ListingLine[];
  readonly onDone: () => Promise<void>;
}

/** The totals of what is shown or chosen, and what can be done with the chosen. */
export function ListingsFoot({ shown, chosen, onDone }: ListingsFootProps) {
  const { ask } = useSave();
  const about = chosen.length > 0 ? chosen : shown;
  const listingIds = chosen.map(({ id }) => id);
  const names = [...new Set(chosen.map(({ nameId }) => nameId))];
  const act = async <T,>(asked: Promise<T | Refusal>, words: (done: T) => string) => {
    if ((await ask(asked, words)) !== null) await onDone();
  };
  return (
    <Foot aria-label="Totals">
      <b>
        {about.length.toLocaleString('en')} {chosen.length > 0 ? 'chosen' : 'listings'}
      </b>
      <span>
        proceeds <b>{amountsWords(sumByCurrency(netProceedsOf(about)), true)}</b>
        {notKnown(about)}
      </span>
      {chosen.length > 0 && (
        <div>
          <ButtonLink href={`/selling/price?names=${names.slice(0, 500).join(',')}`}>Price…</ButtonLink>
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

/** How many of them leave nobody knows how much: a rate is missing for their fees. */
function notKnown(lines: readonly ListingLine[]): string {
  const count = lines.filter(({ askedMinor, proceedsMinor }) => askedMinor !== null && proceedsMinor === null).length;
  return count === 0 ? '' : `, ${count} not known`;
}

function netProceedsOf(lines: readonly ListingLine[]) {
  return lines.flatMap(({ proceedsMinor, currency }) =>
    proceedsMinor === null ? [] : [{ minor: proceedsMinor, currency }],
  );
}
