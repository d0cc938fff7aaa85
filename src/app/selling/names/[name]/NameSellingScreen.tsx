'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { isRefusal, type Refusal } from '@/core/refusal';
import { pricesOf } from '@/core/selling';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { formatAmount } from '@/ui/text/figures';
import { Fields, Notice, Page, Ruled, Section } from '@/ui/text/Sheet';
import { PRICE_WORDS, STAGE_WORDS, STATUS_WORDS, sentWords } from '@/ui/text/sellingWords';
import { dayWords, hourWords } from '@/ui/text/words';
import type { ListingRow } from '@/usecases/selling/listings';
import type { NameSelling } from '@/usecases/selling/report';
import { useTitle } from '../../../frame/Frame';
import { useLedger } from '../../../frame/LedgerProvider';
import { enterOfferAction, proveAction, seenLiveAction, sendListingsAction, withdrawAction } from '../../actions';

/** Everything of selling about one name: where it is on offer, its proof, who has answered, what came of it. */
export function NameSellingScreen({ selling }: { selling: NameSelling }) {
  const router = useRouter();
  const { style } = useLedger();
  const { nameId, ascii, unicode, listings, threads, auctions, sales, cost } = selling;
  useTitle('Selling', unicode);
  const done = (answer: unknown, words: string) => {
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else {
      report({ text: words });
      router.refresh();
    }
  };
  const promised = sales.some(({ stage }) => stage !== 'not paid' && stage !== 'refused');
  return (
    <Page>
      <Section>
        <Actions>
          <h2 className="name">{unicode}</h2>
          <Link href={`/ledger/${encodeURIComponent(ascii)}`}>in the ledger</Link>
          <span className="soft">
            {selling.account}
            {cost && `, has cost ${formatAmount(cost)}`}
          </span>
        </Actions>
        {!promised && (
          <Actions>
            <ButtonLink href={`/selling/price?names=${nameId}`} data-kind="primary">
              {listings.length === 0 ? 'Price and list' : 'Change prices, list elsewhere'}
            </ButtonLink>
          </Actions>
        )}
      </Section>
      {listings.map((listing) => (
        <ListingPart key={listing.id} listing={listing} linkedAccount={selling.linkedAccount} onDone={done} />
      ))}
      {listings.length === 0 && !promised && <p className="soft">It is not listed for sale.</p>}
      {sales.length > 0 && (
        <Section aria-label="Sales">
          <h2>Sales</h2>
          <Ruled aria-label="Sales">
            <tbody>
              {sales.map((sale) => (
                <tr key={sale.id}>
                  <td>
                    <Link href={`/selling/sales/${sale.id}`}>{dayWords(sale.agreedAt, style)}</Link>
                  </td>
                  <td>{sale.buyer}</td>
                  <td>
                    {STAGE_WORDS[sale.stage]}
                    {sale.note && `: ${sale.note}`}
                  </td>
                  <td className="figure">{formatAmount({ minor: sale.priceMinor, currency: sale.currency }, true)}</td>
                </tr>
              ))}
            </tbody>
          </Ruled>
        </Section>
      )}
      {auctions.length > 0 && (
        <Section aria-label="Auctions">
          <h2>Auctions</h2>
          <Ruled aria-label="Auctions">
            <tbody>
              {auctions.map((auction) => (
                <tr key={auction.id}>
                  <td>
                    <Link href={`/selling/auctions/${auction.id}`}>
                      {auction.outcome === null ? `closes ${hourWords(auction.closesAt, style)}` : auction.outcome.kind}
                    </Link>
                  </td>
                  <td>{auction.marketplace ?? 'the office'}</td>
                  <td>
                    {auction.bids.length} {auction.bids.length === 1 ? 'bid' : 'bids'}
                  </td>
                  <td className="figure">
                    {formatAmount(
                      { minor: auction.priceMinor ?? auction.startMinor, currency: auction.currency },
                      true,
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </Ruled>
        </Section>
      )}
      {threads.length > 0 && (
        <Section aria-label="Offers">
          <h2>Offers</h2>
          <Ruled aria-label="Offers">
            <tbody>
              {threads.map((thread) => {
                const last = thread.figures.at(-1);
                return (
                  <tr key={thread.id} data-off={!['open', 'waiting', 'accepted'].includes(thread.state)}>
                    <td>
                      <Link href={`/selling/offers/${thread.id}`}>{thread.buyer}</Link>
                    </td>
                    <td>{thread.marketplace ?? 'by hand'}</td>
                    <td>
                      {thread.state}
                      {thread.state === 'open' &&
                        (last?.by === 'buyer' ? ', yours to answer' : ', the buyer’s to answer')}
                    </td>
                    <td className="figure">
                      {last && formatAmount({ minor: last.minor, currency: thread.currency }, true)}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </Ruled>
        </Section>
      )}
      {!sales.some(({ stage }) => stage === 'done') && (
        <EnterOfferPart nameId={nameId} currency={listings[0]?.currency ?? 'USD'} onDone={done} />
      )}
    </Page>
  );
}

/** Labels and figures stand close to each other. */
const Prices = styled(Ruled)`max-width: 560px;`;

type Done = (answer: unknown, words: string) => void;

function ListingPart({
  listing,
  linkedAccount,
  onDone,
}: {
  listing: ListingRow;
  linkedAccount: boolean;
  onDone: Done;
}) {
  const { style } = useLedger();
  const [code, setCode] = useState('');
  const { id, marketplace, kind, currency, prices, reasons, status } = listing;
  const where = marketplace ?? 'the office itself';
  const isUnproved = status === 'unproved' && listing.marketplaceId !== null;
  const prove = async (by: 'txt' | 'mail' | 'by hand', words: string, sent?: string) => {
    const answer = await proveAction({ listingId: id, by, ...(sent ? { code: sent } : {}) });
    onDone(answer, words);
  };
  const copy = () =>
    void navigator.clipboard
      .writeText(listing.proofText ?? '')
      .then(() => report({ text: 'Copied.' }))
      .catch(() => report({ text: 'It could not be copied: mark the text and copy it by hand.', problem: true }));
  useEffect(() => {
    if (!isUnproved || !listing.proofText) return;
    const onKey = (event: KeyboardEvent) => {
      const isTyping = (event.target as HTMLElement).closest('input, textarea, [role=dialog]');
      if (event.key === 'c' && !isTyping && !event.ctrlKey && !event.metaKey && !event.altKey) copy();
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  });
  return (
    <Section aria-label={`On offer at ${where}`}>
      <Actions>
        <h2>
          {where}: {kind}
        </h2>
        <span className={status === 'refused' || isUnproved ? 'caution' : 'soft'}>{STATUS_WORDS[status]}</span>
        {listing.reviewUntil && <span className="soft">reviewed by {hourWords(listing.reviewUntil, style)}</span>}
        {listing.seenLiveAt && <span className="soft">seen live {dayWords(listing.seenLiveAt, style)}</span>}
      </Actions>
      {listing.problem && <p className="caution">{listing.problem}</p>}
      {isUnproved && listing.linked && (
        <Notice data-kind="caution">
          <p>
            Nobody sees it until {where} knows that the name is yours.{' '}
            {listing.proofSetAt
              ? 'The record was set by your registrar’s link; the marketplace looks for it again by itself.'
              : linkedAccount
                ? 'The registrar’s link could not set the record. Set it at your registrar.'
                : 'Set this record at your registrar:'}
          </p>
          {listing.proofText && (
            <Ruled aria-label="The record to set">
              <tbody>
                <tr>
                  <th scope="row">type</th>
                  <td className="name">TXT</td>
                </tr>
                <tr>
                  <th scope="row">host</th>
                  <td className="name">{listing.proofHost} (or @)</td>
                </tr>
                <tr>
                  <th scope="row">text</th>
                  <td>
                    <code>{listing.proofText}</code>{' '}
                    <Button data-kind="plain" onPress={copy}>
                      Copy (C)
                    </Button>
                  </td>
                </tr>
              </tbody>
            </Ruled>
          )}
          <Actions>
            <Button onPress={() => void prove('txt', 'Proved: it is in review now.')}>Look for the record now</Button>
            <Button onPress={() => void prove('mail', 'A code is mailed to the registrant’s address.')}>
              Mail a code to the registrant
            </Button>
            <Field label="Code from the mail" value={code} onChange={setCode} mono />
            <Button
              isDisabled={code.trim() === ''}
              onPress={() => void prove('mail', 'Proved: it is in review now.', code.trim())}
            >
              Prove by the code
            </Button>
          </Actions>
        </Notice>
      )}
      {isUnproved && !listing.linked && (
        <Notice>
          <p>
            {where} has no link. Enter it there (its list is under “On offer” as CSV), and note when you have seen it
            live.
          </p>
        </Notice>
      )}
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
            onPress={async () => {
              const listed = await sendListingsAction({ listingIds: [id] });
              onDone(listed, isRefusal(listed) || listed.sent === 1 ? 'It is on its way.' : sentWords(listed));
            }}
          >
            Send it
          </Button>
        )}
        {listing.marketplaceId !== null && !listing.linked && ['unproved', 'in review', 'live'].includes(status) && (
          <Button onPress={async () => onDone(await seenLiveAction({ listingIds: [id] }), 'Noted as seen live today.')}>
            I have seen it live
          </Button>
        )}
        <Button onPress={async () => onDone(await withdrawAction({ listingIds: [id] }), 'It is taken off offer.')}>
          Withdraw
        </Button>
      </Actions>
    </Section>
  );
}

/** An offer that came by mail or telephone. */
function EnterOfferPart({ nameId, currency, onDone }: { nameId: number; currency: string; onDone: Done }) {
  const [form, setForm] = useState({ buyer: '', contact: '', amount: '', until: '' });
  const [refused, setRefused] = useState<Refusal | null>(null);
  const field = (key: keyof typeof form, label: string, hint?: string) => (
    <Field
      label={label}
      value={form[key]}
      onChange={(value) => setForm({ ...form, [key]: value })}
      problem={refused?.field === key ? refused.message : null}
      {...(hint ? { hint } : {})}
    />
  );
  const enter = async () => {
    const answer = await enterOfferAction({ nameId, currency, ...form });
    setRefused(isRefusal(answer) ? answer : null);
    if (isRefusal(answer) && answer.field) return;
    onDone(answer, 'The offer is entered.');
    if (!isRefusal(answer)) setForm({ buyer: '', contact: '', amount: '', until: '' });
  };
  return (
    <details>
      <summary>Enter an offer that came by mail or telephone</summary>
      <Section>
        <Fields>
          {field('buyer', 'Who offers it')}
          {field('amount', `Offer in ${currency}`)}
          {field('until', 'Stands until', 'like 2026-12-09; empty for no date')}
          {field('contact', 'How to reach them')}
        </Fields>
        <Actions>
          <Button onPress={() => void enter()}>Enter the offer</Button>
        </Actions>
      </Section>
    </details>
  );
}
