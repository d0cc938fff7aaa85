'use client';
import { useRef, useState } from 'react';
import styled from 'styled-components';
import { Button } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import type { LinePoint } from '@/ui/strip/linePoints';
import { NumberLine } from '@/ui/strip/NumberLine';
import { formatAmount } from '@/ui/text/figures';
import { Answer, Notice, Page, Ruled, Section } from '@/ui/text/Sheet';
import { useWidth } from '@/ui/text/useWidth';
import { untilWords } from '@/ui/text/words';
import type { Negotiation } from '@/usecases/selling/offers';
import { useLedger } from '../../../frame/LedgerProvider';
import { useTitle } from '../../../frame/PageTitle';
import { AnswerPart } from './AnswerPart';
import { BlockSender } from './BlockSender';
import { FiguresPart } from './FiguresPart';
import { type NegotiationState, useNegotiation } from './useNegotiation';

const Legend = styled.dl`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 4px 18px;
  & dt { color: var(--ink-soft); font-size: 0.93rem; }
  & dd { font-weight: 600; }
  & dd small { display: block; font-weight: 400; font-size: 0.86rem; color: var(--ink-soft); }
`;

/** One negotiation: every figure, what each would bring, and the answer. */
export function OfferScreen({ about }: { about: Negotiation }) {
  const { thread, saleId } = about;
  const state = useNegotiation(about);
  const [isAccepting, setAccepting] = useState(false);
  const [isDeclining, setDeclining] = useState(false);
  useTitle('Selling', `${thread.buyer} on ${thread.unicode}`);
  return (
    <Page>
      <Section>
        <Actions>
          <h2>
            {thread.buyer} on <span className="name">{thread.unicode}</span>
          </h2>
          <Link href={`/selling/names/${encodeURIComponent(thread.ascii)}`}>all of this name</Link>
          <span className="soft">
            {thread.marketplace ?? (thread.byShop ? 'by your shop window' : 'kept by hand')}
            {thread.contact && `, ${thread.contact}`}
          </span>
          {thread.byShop && <BlockSender mail={thread.contact} />}
        </Actions>
        {thread.note && <p className="soft">{thread.note}</p>}
        {thread.mailProblem !== null && (
          <Notice data-kind="caution">
            <p>
              The last mail to {thread.buyer} was not taken: {thread.mailProblem}. Reach them otherwise, or look at
              Setup, Mail.
            </p>
          </Notice>
        )}
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
        <OfferAnswer about={about} state={state} />
        <FigureLine about={about} state={state} />
      </Section>
      {(state.isMine || state.isTheirs) && (
        <AnswerPart
          about={about}
          state={state}
          onAccept={() => setAccepting(true)}
          onDecline={() => setDeclining(true)}
        />
      )}
      <FiguresPart about={about} state={state} />
      <AcceptDialog about={about} state={state} isOpen={isAccepting} onClose={() => setAccepting(false)} />
      <DeclineDialog about={about} state={state} isOpen={isDeclining} onClose={() => setDeclining(false)} />
    </Page>
  );
}

/** The figures that count on one line, from nothing to the highest; under it what each would bring. */
function FigureLine({ about: { cost, fees, rivals, thread }, state }: { about: Negotiation; state: NegotiationState }) {
  const { money, margin, floor } = state;
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box, 900, 260);
  const named: readonly (readonly [LinePoint['kind'], string, number | null])[] = [
    ['offer', 'the buyer’s figure', state.buyers],
    ['ours', 'your figure', state.owners],
    ['minimum', 'the middle', state.middle],
    ['asking', 'asking', state.asking],
    ['cost', 'your floor', floor],
  ];
  const points = [
    ...named.flatMap(([kind, text, minor]): LinePoint[] =>
      minor === null
        ? []
        : [{ kind, minor, text: `${text.replace(/^the buyer’s figure$/, 'offered')} ${money(minor)}` }],
    ),
    ...rivals.flatMap(({ minor, currency, buyer }): LinePoint[] =>
      currency === thread.currency ? [{ kind: 'other', minor, text: `${buyer} ${money(minor)}` }] : [],
    ),
  ];
  return (
    <>
      <div ref={box}>
        <NumberLine
          points={points}
          width={width}
          height={74}
          label={`The figures: ${points.map(({ text }) => text).join(', ')}`}
        />
      </div>
      <Legend aria-label="The figures">
        {named.map(([, what, minor]) => (
          <div key={what}>
            <dt>{what}</dt>
            <dd>
              {minor === null ? '–' : money(minor)}
              {what === 'your floor' ? (
                <small>
                  {cost === null || fees === null
                    ? 'the cost is not known'
                    : `brings what it has cost, ${formatAmount(cost)}${margin ? `, and ${money(margin)}` : ''}`}
                </small>
              ) : (
                minor !== null && <small>{state.proceedsWords(minor)}</small>
              )}
            </dd>
          </div>
        ))}
      </Legend>
    </>
  );
}

/** What the offer comes to, before the figures prove it. */
function OfferAnswer({ about: { thread, rivals }, state }: { about: Negotiation; state: NegotiationState }) {
  const { live, money, asking, isMine } = state;
  if (!isMine || !live) return null;
  const share = asking ? Math.round((100 * live.minor) / asking) : null;
  const higher = rivals.filter(
    ({ minor, currency, isOurs }) => !isOurs && currency === thread.currency && minor > live.minor,
  );
  return (
    <Answer>
      {thread.buyer} offers {money(live.minor)}
      {share !== null && `, ${share} % of what is asked`}.
      {higher[0] && (
        <span className="caution">
          {' '}
          {higher[0].buyer} offers more: {money(higher[0].minor)}.
        </span>
      )}
    </Answer>
  );
}

interface AcceptDialogProps {
  readonly about: Negotiation;
  readonly state: NegotiationState;
  readonly isOpen: boolean;
  readonly onClose: () => void;
}

function AcceptDialog({ about: { thread, rivals }, state, isOpen, onClose }: AcceptDialogProps) {
  const { style } = useLedger();
  const { live, money } = state;
  return (
    <Dialog title="Accept this offer?" isOpen={isOpen} onClose={onClose}>
      {live && (
        <>
          <p>
            <span className="name">{thread.unicode}</span> goes to {thread.buyer} for <b>{money(live.minor)}</b>
            {`: ${state.proceedsWords(live.minor)}`}. The name is promised from now on: other offers wait, and its other
            listings are withdrawn.
          </p>
          {rivals.length > 0 && (
            <>
              <p>
                {rivals.length === 1 ? 'Somebody else stands' : `${rivals.length} others stand`} for it, and would wait
                until this sale is paid or fails:
              </p>
              <Ruled aria-label="Rivals">
                <tbody>
                  {rivals.map((rival) => (
                    <tr key={rival.threadId}>
                      <td>{rival.buyer}</td>
                      <td className="soft">{rival.isOurs ? 'has your figure' : 'offers'}</td>
                      <td
                        className={
                          rival.minor > live.minor && rival.currency === thread.currency ? 'figure caution' : 'figure'
                        }
                      >
                        {formatAmount({ minor: rival.minor, currency: rival.currency }, true)}
                      </td>
                      <td className="soft">
                        {rival.lapsesAt === null ? '' : `until ${untilWords(rival.lapsesAt, style)}`}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </Ruled>
            </>
          )}
          <p className="soft">
            {live.lapsesAt
              ? `If you do nothing, the offer lapses after ${untilWords(live.lapsesAt, style)}.`
              : 'If you do nothing, the offer stays.'}
          </p>
          <AnswerActions
            state={state}
            answer="accept"
            done="Accepted: it is a sale."
            text={`Accept ${money(live.minor)}`}
            back="Not yet"
            onClose={onClose}
          />
        </>
      )}
    </Dialog>
  );
}

/** Declining ends the thread: said before it is done. */
function DeclineDialog({ about: { thread, rivals }, state, isOpen, onClose }: AcceptDialogProps) {
  const { live, money } = state;
  return (
    <Dialog title="Decline this offer?" isOpen={isOpen} onClose={onClose}>
      {live && (
        <>
          <p>
            {thread.buyer} is told no{thread.marketplace && ` by ${thread.marketplace}`}, and this negotiation ends: it
            cannot be taken back. {money(live.minor)} is gone; a counter with your own figure would keep it open.{' '}
            {rivals.length === 0
              ? 'Nobody else stands for the name.'
              : `${rivals.length === 1 ? 'Another offer stays' : `${rivals.length} others stay`} open.`}
          </p>
          <AnswerActions
            state={state}
            answer="decline"
            done="Declined."
            text={`Decline ${money(live.minor)}`}
            back="Leave it open"
            onClose={onClose}
          />
        </>
      )}
    </Dialog>
  );
}

/** Giving an answer, or not; what stands against it is said beside it. */
function AnswerActions({
  state,
  answer,
  done,
  text,
  back,
  onClose,
}: {
  state: AcceptDialogProps['state'];
  answer: 'accept' | 'decline';
  done: string;
  text: string;
  back: string;
  onClose: () => void;
}) {
  return (
    <>
      {state.refused && (
        <p className="caution" role="alert">
          {state.refused.message}
        </p>
      )}
      <Actions>
        <Button
          data-kind={answer === 'accept' ? 'primary' : 'caution'}
          onPress={async () => {
            if ((await state.answer(answer, done)) !== null) onClose();
          }}
        >
          {text}
        </Button>
        <Button onPress={onClose}>{back}</Button>
      </Actions>
    </>
  );
}
