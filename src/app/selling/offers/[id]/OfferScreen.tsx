'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import styled from 'styled-components';
import { type Amount, formatDecimal } from '@/core/money';
import { isRefusal, type Refusal } from '@/core/refusal';
import { askedPrice, middleOf, netProceedsOf, priceForProceeds } from '@/core/selling';
import { addDays, dayOf } from '@/core/time';
import { AmountField } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { formatAmount, readTyped, typedAmount } from '@/ui/text/figures';
import { Fields, Notice, Page, Ruled, Section } from '@/ui/text/Sheet';
import { hourWords, untilWords } from '@/ui/text/words';
import type { Negotiation } from '@/usecases/selling/offers';
import { useTitle } from '../../../frame/Frame';
import { useLedger } from '../../../frame/LedgerProvider';
import { answerOfferAction, buyerAnswersAction, enterOfferAction } from '../../actions';

const Scale = styled.dl`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(120px, 1fr));
  gap: 6px 16px;
  & dt { color: var(--ink-soft); font-size: 0.9rem; }
  & dd { font-size: 1.15rem; font-weight: 600; }
  & dd small { display: block; font-weight: 400; font-size: 0.86rem; color: var(--ink-soft); }
`;

const COUNTER_DAYS = 7;

/** One negotiation: every figure, what each would leave, the middle, and the floor. */
export function OfferScreen({ about }: { about: Negotiation }) {
  const router = useRouter();
  const { style } = useLedger();
  const { thread, listing, cost, fees, unitMinor, saleId, now } = about;
  const { currency, figures } = thread;
  const [amount, setAmount] = useState('');
  const [margin, setMargin] = useState<number | null>(0);
  const [until, setUntil] = useState(dayOf(addDays(now, COUNTER_DAYS)) as string);
  const [refused, setRefused] = useState<Refusal | null>(null);
  const [accepting, setAccepting] = useState(false);
  useTitle('Selling', `${thread.buyer} on ${thread.unicode}`);

  const live = figures.findLast(({ state }) => state === 'live');
  const isLapsed = live?.lapsesAt != null && live.lapsesAt <= now;
  const mine = thread.state === 'open' && live?.by === 'buyer' && !isLapsed;
  const theirs = thread.state === 'open' && live?.by === 'owner' && !isLapsed;
  const money = (minor: number) => formatAmount({ minor, currency }, true);
  const last = (by: 'buyer' | 'owner') => figures.findLast((figure) => figure.by === by);
  const asking = listing?.currency === currency ? askedPrice(listing) : null;
  const middle = middleOf(figures, unitMinor) ?? betweenAsking(last('buyer')?.minor, asking, unitMinor);
  const wanted = margin;
  const floor =
    cost === null || fees === null || wanted === null ? null : priceForProceeds(cost.minor + wanted, fees, unitMinor);
  const proceedsWords = (minor: number) => {
    if (fees === null) return 'what the marketplace keeps is not known: no rate';
    const { proceedsMinor } = netProceedsOf(minor, fees);
    return cost === null
      ? `proceeds ${money(proceedsMinor)}`
      : `proceeds ${money(proceedsMinor)}, profit ${money(proceedsMinor - cost.minor)}`;
  };
  const read = amount.trim() === '' ? null : readTyped(amount, currency);
  const typed = read === null || isRefusal(read) ? null : read.minor;

  const answered = (answer: true | Refusal | number, words: string) => {
    setRefused(isRefusal(answer) ? answer : null);
    if (isRefusal(answer)) {
      if (!answer.field) report({ text: answer.message, problem: true });
      return;
    }
    report({ text: words });
    setAmount('');
    setAccepting(false);
    router.refresh();
  };
  const answer = async (kind: 'accept' | 'counter' | 'decline', words: string) =>
    answered(
      await answerOfferAction({
        threadId: thread.id,
        figureId: live?.id,
        answer: kind,
        ...(kind === 'counter' && typed !== null ? { amount: formatDecimal({ minor: typed, currency }), until } : {}),
      }),
      words,
    );
  return (
    <Page>
      <Section>
        <Actions>
          <h2>
            {thread.buyer} on <span className="name">{thread.unicode}</span>
          </h2>
          <Link href={`/selling/names/${encodeURIComponent(thread.ascii)}`}>all of this name</Link>
          <span className="soft">
            {thread.marketplace ?? 'kept by hand'}
            {thread.contact && `, ${thread.contact}`}
          </span>
        </Actions>
        {thread.note && <p className="soft">{thread.note}</p>}
        {thread.state === 'waiting' && (
          <Notice>
            <p>
              The name is promised to somebody else. This thread waits until that sale is paid or fails.{' '}
              {saleId !== null && <Link href={`/selling/sales/${saleId}`}>See the sale</Link>}
            </p>
          </Notice>
        )}
        {thread.state === 'accepted' && saleId !== null && (
          <Notice>
            <p>
              Accepted. <Link href={`/selling/sales/${saleId}`}>See the sale through</Link>
            </p>
          </Notice>
        )}
        <Scale aria-label="Where it stands">
          {[
            ['the buyer’s figure', last('buyer')?.minor ?? null],
            ['your figure', last('owner')?.minor ?? null],
            ['the middle', middle],
            ['asking', asking],
            ['your floor', floor],
          ].map(([what, minor]) => (
            <div key={what as string}>
              <dt>{what}</dt>
              <dd>
                {minor === null ? '–' : money(minor as number)}
                {minor !== null && what !== 'your floor' && <small>{proceedsWords(minor as number)}</small>}
                {what === 'your floor' && (
                  <small>
                    {cost === null || fees === null
                      ? 'the cost is not known'
                      : `brings what it has cost, ${formatAmount(cost)}${wanted ? `, and ${money(wanted)}` : ''}`}
                  </small>
                )}
              </dd>
            </div>
          ))}
        </Scale>
      </Section>
      {(mine || theirs) && (
        <Section aria-label={mine ? 'Your answer' : 'The buyer’s answer'}>
          <h2>{mine ? 'Your answer' : 'The buyer has your figure'}</h2>
          {mine && live && (
            <Actions>
              <Button data-kind="primary" onPress={() => setAccepting(true)}>
                Accept {money(live.minor)}…
              </Button>
              <Button onPress={() => void answer('decline', 'Declined.')}>Decline</Button>
              <span className="soft">
                {live.lapsesAt ? `It stands until ${untilWords(live.lapsesAt, style)}.` : 'It has no date.'}
              </span>
            </Actions>
          )}
          <Fields>
            <AmountField
              label={`Counter with, in ${currency}`}
              currency={currency}
              value={amount}
              onChange={setAmount}
              hint={typed === null ? 'like 1200' : proceedsWords(typed)}
              problem={refused?.field === 'amount' ? refused.message : null}
            />
            <Field
              label="Stands until"
              value={until}
              onChange={setUntil}
              problem={refused?.field === 'until' ? refused.message : null}
            />
            <AmountField
              label="Profit wanted at least"
              currency={currency}
              onChange={(text, wished) => setMargin(text.trim() === '' ? 0 : (wished?.minor ?? null))}
              hint="moves your floor"
            />
          </Fields>
          {typed !== null && floor !== null && typed < floor && (
            <p className="caution">That is below your floor of {money(floor)}.</p>
          )}
          <Actions>
            <Button isDisabled={typed === null} onPress={() => void answer('counter', 'Your figure is on the table.')}>
              Counter
            </Button>
            {middle !== null && mine && (
              <Button onPress={() => setAmount(typedAmount({ minor: middle, currency }))}>
                Take the middle, {money(middle)}
              </Button>
            )}
            {thread.ref === null && theirs && (
              <>
                <Button
                  onPress={async () =>
                    answered(await buyerAnswersAction(thread.id, 'accept'), 'Accepted: it is a sale.')
                  }
                >
                  The buyer accepts
                </Button>
                <Button
                  onPress={async () =>
                    answered(await buyerAnswersAction(thread.id, 'decline'), 'The thread is closed.')
                  }
                >
                  The buyer gives up
                </Button>
              </>
            )}
          </Actions>
        </Section>
      )}
      {thread.ref === null && ['open', 'lapsed', 'declined'].includes(thread.state) && (
        <NextFigure
          currency={currency}
          onEnter={async (figure) =>
            answered(
              await enterOfferAction({
                nameId: thread.nameId,
                threadId: thread.id,
                buyer: thread.buyer,
                amount: formatDecimal(figure),
                currency,
              }),
              'The figure is entered.',
            )
          }
        />
      )}
      <Section aria-label="Every figure">
        <h2>Every figure</h2>
        <Ruled aria-label="Every figure">
          <thead>
            <tr>
              <th>When</th>
              <th>Who</th>
              <th className="figure">Figure</th>
              <th>What became of it</th>
            </tr>
          </thead>
          <tbody>
            {[...figures].reverse().map((figure) => (
              <tr key={figure.id} data-off={figure.state !== 'live' && figure.state !== 'accepted'}>
                <td>{hourWords(figure.at, style)}</td>
                <td>
                  {figure.by === 'buyer' ? thread.buyer : 'you'}
                  {figure.byRule && ', by your rule'}
                </td>
                <td className="figure">{money(figure.minor)}</td>
                <td>
                  {figure.state === 'voided' ? 'answered with another figure' : figure.state}
                  {figure.state === 'live' && figure.lapsesAt && `, until ${untilWords(figure.lapsesAt, style)}`}
                  {figure.note && `, ${figure.note}`}
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      </Section>
      <Dialog title="Accept this offer?" isOpen={accepting} onClose={() => setAccepting(false)}>
        {live && (
          <>
            <p>
              <span className="name">{thread.unicode}</span> goes to {thread.buyer} for <b>{money(live.minor)}</b>
              {`: ${proceedsWords(live.minor)}`}. The name is promised from now on: other offers wait, and it is taken
              off offer everywhere else.
            </p>
            <p className="soft">
              {live.lapsesAt
                ? `If you do nothing, the offer lapses after ${untilWords(live.lapsesAt, style)}.`
                : 'If you do nothing, the offer stays.'}
            </p>
            <Actions>
              <Button data-kind="primary" onPress={() => void answer('accept', 'Accepted: it is a sale.')}>
                Accept {money(live.minor)}
              </Button>
              <Button onPress={() => setAccepting(false)}>Not yet</Button>
            </Actions>
          </>
        )}
      </Dialog>
    </Page>
  );
}

/** Half way between the buyer's figure and what is asked, while the owner has named none. */
function betweenAsking(buyer: number | undefined, asking: number | null, unitMinor: number): number | null {
  return buyer === undefined || asking === null || asking <= buyer
    ? null
    : Math.round((buyer + asking) / 2 / unitMinor) * unitMinor;
}

/** What a buyer by mail or telephone says next. */
function NextFigure({ currency, onEnter }: { currency: string; onEnter: (figure: Amount) => Promise<void> }) {
  const [text, setText] = useState('');
  const [figure, setFigure] = useState<Amount | null>(null);
  return (
    <details>
      <summary>Enter the buyer’s next figure</summary>
      <Actions>
        <AmountField
          label={`Figure in ${currency}`}
          currency={currency}
          value={text}
          onChange={(next, understood) => {
            setText(next);
            setFigure(understood);
          }}
        />
        <Button isDisabled={figure === null} onPress={() => figure && void onEnter(figure).then(() => setText(''))}>
          Enter it
        </Button>
      </Actions>
    </details>
  );
}
