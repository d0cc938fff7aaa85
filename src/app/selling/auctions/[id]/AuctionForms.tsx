'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { counterLapses } from '@/core/selling';
import { dayOf } from '@/core/time';
import { AmountField, decimalIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Field } from '@/ui/controls/Field';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Fields } from '@/ui/text/Sheet';
import type { AuctionView } from '@/usecases/selling/auctions';
import { useSave } from '../../../acts/useSave';
import { changeReserveAction, enterBidAction, offerToHighestAction } from '../../actions';

/** Bids that were given to the office itself, by mail or telephone. */
export function BidPart({ view: { auction, standing } }: { view: AuctionView }) {
  const { save, refused, isBusy } = useSave();
  // A form whose bid was entered begins anew.
  const [round, setRound] = useState(0);
  const money = (minor: number) => formatAmount({ minor, currency: auction.currency }, true);
  const [bidder, setBidder] = useState('');
  const bid = async (form: FormData) => {
    const asked = enterBidAction({ auctionId: auction.id, bidder, max: decimalIn(form, 'max', auction.currency) });
    if ((await save(asked, 'The bid is entered.')) !== null) setRound(round + 1);
  };
  const buy = () => save(enterBidAction({ auctionId: auction.id, bidder, buyNow: true }), 'Sold at the buy-now price.');
  return (
    <Form key={round} aria-label="Enter a bid" refused={refused} onSubmit={bid}>
      <h2>Enter a bid</h2>
      <Fields>
        <Field name="bidder" label="Who bids" value={bidder} onChange={setBidder} />
        <AmountField
          name="max"
          label={`Up to, in ${auction.currency}`}
          currency={auction.currency}
          hint={`the next bid has to reach ${money(standing.leastMinor)}`}
        />
      </Fields>
      <Actions>
        <Button type="submit" isDisabled={isBusy}>
          Enter the bid
        </Button>
        {standing.buyNowOpen && auction.buyNowMinor !== null && (
          <Button isDisabled={isBusy} onPress={() => void buy()}>
            Sell at once for {money(auction.buyNowMinor)}
          </Button>
        )}
      </Actions>
    </Form>
  );
}

/** The reserve, lowered while the auction runs: it only ever falls. */
export function ReservePart({ view: { auction } }: { view: AuctionView }) {
  const { save, refused, isBusy } = useSave();
  const change = (to: { reserve: string } | { withoutReserve: true }) =>
    save(changeReserveAction({ auctionId: auction.id, ...to }), 'The reserve is lower now.');
  return (
    <details>
      <summary>Lower the reserve</summary>
      <Form
        aria-label="Lower the reserve"
        refused={refused}
        onSubmit={(form) => void change({ reserve: decimalIn(form, 'reserve', auction.currency) })}
      >
        <Fields>
          <AmountField
            name="reserve"
            label={`Reserve in ${auction.currency}`}
            currency={auction.currency}
            hint="it only ever falls"
          />
        </Fields>
        <Actions>
          <Button type="submit" isDisabled={isBusy}>
            Lower it
          </Button>
          <Button isDisabled={isBusy} onPress={() => void change({ withoutReserve: true })}>
            Sell without a reserve
          </Button>
        </Actions>
      </Form>
    </details>
  );
}

/** Nothing is lost yet: who bid most may still want it. */
export function HighestPart({ view: { auction, now } }: { view: AuctionView }) {
  const router = useRouter();
  const { save, refused, isBusy } = useSave();
  const highest = auction.outcome?.kind === 'unsold' ? auction.outcome.highest : '';
  const offer = async (form: FormData) => {
    const thread = await save(
      offerToHighestAction({
        auctionId: auction.id,
        amount: decimalIn(form, 'amount', auction.currency),
        until: dayIn(form, 'until'),
      }),
      `Your figure goes to ${highest}.`,
    );
    if (thread !== null) router.push(`/selling/offers/${thread}`);
  };
  return (
    <Form aria-label="Offer it to the highest bidder" refused={refused} onSubmit={offer}>
      <h2>Offer it to {highest}</h2>
      <Fields>
        <AmountField name="amount" label={`Your figure in ${auction.currency}`} currency={auction.currency} />
        <DayField name="until" label="Stands until" defaultValue={dayOf(counterLapses(now))} />
      </Fields>
      <Actions>
        <Button type="submit" data-kind="primary" isDisabled={isBusy}>
          Offer it
        </Button>
      </Actions>
    </Form>
  );
}
