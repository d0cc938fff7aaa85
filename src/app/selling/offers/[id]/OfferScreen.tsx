'use client';
import Link from 'next/link';
import { useState } from 'react';
import styled from 'styled-components';
import { Button } from '@/ui/controls/Button';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Notice, Page, Section } from '@/ui/text/Sheet';
import { untilWords } from '@/ui/text/words';
import type { Negotiation } from '@/usecases/selling/offers';
import { useTitle } from '../../../frame/Frame';
import { useLedger } from '../../../frame/LedgerProvider';
import { AnswerPart } from './AnswerPart';
import { FiguresPart } from './FiguresPart';
import { type NegotiationState, useNegotiation } from './useNegotiation';

const Scale = styled.dl`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(120px, 1fr));
  gap: 6px 16px;
  & dt { color: var(--ink-soft); font-size: 0.9rem; }
  & dd { font-size: 1.15rem; font-weight: 600; }
  & dd small { display: block; font-weight: 400; font-size: 0.86rem; color: var(--ink-soft); }
`;

/** One negotiation: every figure, what each would bring, and the answer. */
export function OfferScreen({ about }: { about: Negotiation }) {
  const { thread, saleId } = about;
  const state = useNegotiation(about);
  const [isAccepting, setAccepting] = useState(false);
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
        <FigureScale about={about} state={state} />
      </Section>
      {(state.isMine || state.isTheirs) && (
        <AnswerPart about={about} state={state} onAccept={() => setAccepting(true)} />
      )}
      <FiguresPart about={about} state={state} />
      <AcceptDialog about={about} state={state} isOpen={isAccepting} onClose={() => setAccepting(false)} />
    </Page>
  );
}

/** The figures that count side by side, each with what it would bring. */
function FigureScale({ about: { cost, fees }, state }: { about: Negotiation; state: NegotiationState }) {
  const { money, margin, floor } = state;
  const figures: readonly (readonly [string, number | null])[] = [
    ['the buyer’s figure', state.buyers],
    ['your figure', state.owners],
    ['the middle', state.middle],
    ['asking', state.asking],
  ];
  return (
    <Scale aria-label="The figures">
      {figures.map(([what, minor]) => (
        <div key={what}>
          <dt>{what}</dt>
          <dd>
            {minor === null ? '–' : money(minor)}
            {minor !== null && <small>{state.proceedsWords(minor)}</small>}
          </dd>
        </div>
      ))}
      <div>
        <dt>your floor</dt>
        <dd>
          {floor === null ? '–' : money(floor)}
          <small>
            {cost === null || fees === null
              ? 'the cost is not known'
              : `brings what it has cost, ${formatAmount(cost)}${margin ? `, and ${money(margin)}` : ''}`}
          </small>
        </dd>
      </div>
    </Scale>
  );
}

interface AcceptDialogProps {
  readonly about: Negotiation;
  readonly state: NegotiationState;
  readonly isOpen: boolean;
  readonly onClose: () => void;
}

function AcceptDialog({ about: { thread }, state, isOpen, onClose }: AcceptDialogProps) {
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
          <p className="soft">
            {live.lapsesAt
              ? `If you do nothing, the offer lapses after ${untilWords(live.lapsesAt, style)}.`
              : 'If you do nothing, the offer stays.'}
          </p>
          {state.refused && (
            <p className="caution" role="alert">
              {state.refused.message}
            </p>
          )}
          <Actions>
            <Button
              data-kind="primary"
              onPress={async () => {
                if ((await state.answer('accept', 'Accepted: it is a sale.')) !== null) onClose();
              }}
            >
              Accept {money(live.minor)}
            </Button>
            <Button onPress={onClose}>Not yet</Button>
          </Actions>
        </>
      )}
    </Dialog>
  );
}
