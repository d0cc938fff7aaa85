'use client';
import styled from 'styled-components';
import { pricesOf } from '@/core/selling';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Ruled, Section } from '@/ui/text/Sheet';
import { PRICE_WORDS, STATUS_WORDS, sentWords } from '@/ui/text/sellingWords';
import { dayWords, hourWords } from '@/ui/text/words';
import type { ListingRow } from '@/usecases/selling/listings';
import { useSave } from '../../../acts/useSave';
import { useLedger } from '../../../frame/LedgerProvider';
import { seenLiveAction, sendListingsAction, withdrawAction } from '../../actions';
import { ProofByHandPart, ProofPart } from './ProofPart';

/** Labels and figures stand close to each other. */
const Prices = styled(Ruled)`max-width: 560px;`;

interface ListingPartProps {
  readonly listing: ListingRow;
  /** Whether the account of the name is linked: its registrar can set a record. */
  readonly linkedAccount: boolean;
}

/** One listing of a name: how it stands, its prices, and what can be done with it. */
export function ListingPart({ listing, linkedAccount }: ListingPartProps) {
  const { style } = useLedger();
  const { ask, isBusy } = useSave();
  const { id, kind, currency, prices, reasons, status } = listing;
  const where = listing.marketplace ?? 'the office itself';
  const isUnproved = status === 'unproved' && listing.marketplaceId !== null;
  const isByHand = listing.marketplaceId !== null && !listing.linked;
  return (
    <Section aria-label={`Listed at ${where}`}>
      <Actions>
        <h2>
          {where}: {kind}
        </h2>
        <span className={status === 'refused' || isUnproved ? 'caution' : 'soft'}>{STATUS_WORDS[status]}</span>
        {listing.reviewUntil && <span className="soft">reviewed by {hourWords(listing.reviewUntil, style)}</span>}
        {listing.seenLiveAt && <span className="soft">seen live {dayWords(listing.seenLiveAt, style)}</span>}
      </Actions>
      {listing.problem && <p className="caution">{listing.problem}</p>}
      {isUnproved && listing.linked && <ProofPart listing={listing} where={where} linkedAccount={linkedAccount} />}
      {isUnproved && isByHand && <ProofByHandPart listing={listing} where={where} linkedAccount={linkedAccount} />}
      <Prices aria-label={`Prices at ${where}`}>
        <tbody>
          {pricesOf(kind).map((price) => {
            const minor = prices[price];
            return minor === null ? null : (
              <tr key={price}>
                <th scope="row">{PRICE_WORDS[price]}</th>
                <td className="figure">{formatAmount({ minor, currency }, true)}</td>
                <td className="soft">{reasons[price]}</td>
              </tr>
            );
          })}
        </tbody>
      </Prices>
      <Actions>
        {(status === 'draft' || status === 'refused') && (
          <Button
            isDisabled={isBusy}
            onPress={() =>
              void ask(sendListingsAction({ listingIds: [id] }), (listed) =>
                listed.sent === 1 ? 'It is on its way.' : sentWords(listed),
              )
            }
          >
            {isBusy ? 'Sending…' : 'Send it'}
          </Button>
        )}
        {isByHand && ['unproved', 'in review', 'live'].includes(status) && (
          <Button onPress={() => void ask(seenLiveAction({ listingIds: [id] }), 'Noted as seen live today.')}>
            I have seen it live
          </Button>
        )}
        <Button isDisabled={isBusy} onPress={() => void ask(withdrawAction({ listingIds: [id] }), 'It is withdrawn.')}>
          Withdraw
        </Button>
      </Actions>
    </Section>
  );
}
