'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { type Amount, formatDecimal } from '@/core/money';
import { isRefusal, type Refusal } from '@/core/refusal';
import { counterLapses } from '@/core/selling';
import { dayOf } from '@/core/time';
import { AmountField } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { DayField, writtenDay } from '@/ui/controls/DayField';
import { Field } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { formatAmount } from '@/ui/text/figures';
import { Fields, Section } from '@/ui/text/Sheet';
import type { AuctionView } from '@/usecases/selling/auctions';
import { changeReserveAction, enterBidAction, offerToHighestAction } from '../../actions';

/** How an answer of the server is taken: a refusal is kept for its field, anything else is told and goes on. */
function useAnswer(onDone: () => void): [Refusal | null, (answer: true | Refusal, words: string) => void] {
  const [refused, setRefused] = useState<Refusal | null>(null);
  return [
    refused,
    (answer, words) => {
      setRefused(isRefusal(answer) ? answer : null);
      if (isRefusal(answer)) return;
      report({ text: words });
      onDone();
    },
  ];
}

/** Bids that were given to the office itself, by mail or telephone. */
export function BidPart({ view: { auction, standing }, onDone }: { view: AuctionView; onDone: () => void }) {
  const [bidder, setBidder] = useState('');
  const [max, setMax] = useState('');
  const [read, setRead] = useState<Amount | null>(null);
  const [refused, answered] = useAnswer(() => {
    setMax('');
    setRead(null);
    onDone();
  });
  const money = (minor: number) => formatAmount({ minor, currency: auction.currency }, true);
  const bid = async (most: Amount | null) =>
    answered(
      await enterBidAction({ auctionId: auction.id, bidder, ...(most === null ? {} : { max: formatDecimal(most) }) }),
      most === null ? 'Sold at the buy-now price.' : 'The bid is entered.',
    );
  return (
    <Section aria-label="Enter a bid">
      <h2>Enter a bid</h2>
      <Fields>
        <Field
          label="Who bids"
          value={bidder}
          onChange={setBidder}
          problem={refused?.field === 'bidder' ? refused.message : null}
        />
        <AmountField
          label={`Up to, in ${auction.currency}`}
          currency={auction.currency}
          value={max}
          onChange={(text, understood) => {
            setMax(text);
            setRead(understood);
          }}
          hint={`the next bid has to reach ${money(standing.leastMinor)}`}
          problem={refused && refused.field !== 'bidder' ? refused.message : null}
        />
      </Fields>
      <Actions>
        <Button isDisabled={read === null} onPress={() => void bid(read)}>
          Enter the bid
        </Button>
        {standing.buyNowOpen && auction.buyNowMinor !== null && (
          <Button isDisabled={bidder.trim() === ''} onPress={() => void bid(null)}>
            Sell at once for {money(auction.buyNowMinor)}
          </Button>
        )}
      </Actions>
    </Section>
  );
}

/** The reserve, lowered while the auction runs: it only ever falls. */
export function ReservePart({ view: { auction }, onDone }: { view: AuctionView; onDone: () => void }) {
  const [reserve, setReserve] = useState<Amount | null>(null);
  const [refused, answered] = useAnswer(onDone);
  const change = async (lower: Amount | null) =>
    answered(
      await changeReserveAction({
        auctionId: auction.id,
        ...(lower === null ? {} : { reserve: formatDecimal(lower) }),
      }),
      'The reserve is lower now.',
    );
  return (
    <details>
      <summary>Lower the reserve</summary>
      <Actions>
        <AmountField
          label={`Reserve in ${auction.currency}`}
          currency={auction.currency}
          onChange={(_, understood) => setReserve(understood)}
          hint="it only ever falls"
          problem={refused?.message ?? null}
        />
        <Button isDisabled={reserve === null} onPress={() => void change(reserve)}>
          Lower it
        </Button>
        <Button onPress={() => void change(null)}>Sell without a reserve</Button>
      </Actions>
    </details>
  );
}

/** Nothing is lost yet: who bid most may still want it. */
export function HighestPart({ view: { auction, now } }: { view: AuctionView }) {
  const router = useRouter();
  const [amount, setAmount] = useState<Amount | null>(null);
  const [until, setUntil] = useState<string>(dayOf(counterLapses(now)));
  const [refused, setRefused] = useState<Refusal | null>(null);
  const highest = auction.outcome?.kind === 'unsold' ? auction.outcome.highest : '';
  const offer = async () => {
    const thread = await offerToHighestAction({
      auctionId: auction.id,
      amount: amount === null ? '' : formatDecimal(amount),
      until: writtenDay(until),
    });
    setRefused(isRefusal(thread) ? thread : null);
    if (!isRefusal(thread)) router.push(`/selling/offers/${thread}`);
  };
  return (
    <Section aria-label="Offer it to the highest bidder">
      <h2>Offer it to {highest}</h2>
      <Fields>
        <AmountField
          label={`Your figure in ${auction.currency}`}
          currency={auction.currency}
          onChange={(_, understood) => setAmount(understood)}
          problem={refused && refused.field !== 'until' ? refused.message : null}
        />
        <DayField
          label="Stands until"
          value={until}
          onChange={(text) => setUntil(text)}
          problem={refused?.field === 'until' ? refused.message : null}
        />
      </Fields>
      <Actions>
        <Button data-kind="primary" isDisabled={amount === null} onPress={() => void offer()}>
          Offer it
        </Button>
      </Actions>
    </Section>
  );
}
