'use client';
import styled from 'styled-components';
import type { CostStretch } from '@/core/rescue';
import { formatAmount } from '@/ui/text/figures';
import { Section } from '@/ui/text/Sheet';
import { dayWords, untilWords } from '@/ui/text/words';
import type { Lapse } from '@/usecases/rescue/lapse';
import { useLedger } from '../../frame/LedgerProvider';

const Line = styled.ol`
  list-style: none;
  margin: 0;
  padding: 0 0 0 14px;
  border-left: 2px solid var(--rule);
  display: flex;
  flex-direction: column;
  gap: 8px;
  & li { position: relative; display: grid; grid-template-columns: 110px 1fr; gap: 10px; }
  & li::before { content: ''; position: absolute; left: -19px; top: 6px; width: 8px; height: 8px; border-radius: 50%; background: var(--ink-soft); }
  & li[data-kind='failure']::before { background: var(--caution); border-radius: 0; }
  & li[data-kind='step']::before { background: var(--sheet); border: 2px solid var(--ink); box-sizing: border-box; }
`;

const BY_WORDS: Readonly<Record<CostStretch['by'], string>> = {
  renewal: 'a renewal',
  'late renewal': 'a late renewal',
  restore: 'a restore and a year',
  nothing: 'nothing could keep it',
};

/** A look back at a lapse: what came when, and what keeping the name would have cost on each day. */
export function LapsePart({ lapse }: { lapse: Lapse }) {
  const { style } = useLedger();
  return (
    <Section aria-label="How it lapsed">
      <h2>How it lapsed</h2>
      <p>
        What keeping it costs:{' '}
        {lapse.costs.map((stretch, i) => (
          <span key={stretch.from}>
            {i > 0 && '; '}
            {stretch.until === null
              ? `from ${dayWords(stretch.from, style)} on, ${BY_WORDS[stretch.by]}`
              : `until ${untilWords(stretch.until, style)}, ${BY_WORDS[stretch.by]} for ${stretch.ruleOfThumb && stretch.cost ? 'about ' : ''}${stretch.cost ? formatAmount(stretch.cost) : 'a price not known'}`}
          </span>
        ))}
        .
      </p>
      <Line aria-label="Timeline">
        {lapse.events.map((event) => (
          <li key={`${event.at} ${event.text}`} data-kind={event.kind}>
            <time dateTime={new Date(event.at).toISOString()}>{dayWords(event.at, style)}</time>
            <span className={event.kind === 'failure' ? 'caution' : undefined}>{event.text}</span>
          </li>
        ))}
      </Line>
    </Section>
  );
}
