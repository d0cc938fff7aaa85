'use client';
import Link from 'next/link';
import styled from 'styled-components';
import { SALE_STAGES, turnAt } from '@/core/selling';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Notice, Section } from '@/ui/text/Sheet';
import { STAGE_WORDS } from '@/ui/text/sellingWords';
import { dayWords, hourWords } from '@/ui/text/words';
import type { Statement } from '@/usecases/selling/statement';
import { useLedger } from '../../../frame/LedgerProvider';
import { STEP_WORDS } from './stepWords';

const Way = styled.ol`
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  border-top: 3px solid var(--rule);
  & li { position: relative; padding: 10px 8px 0 0; color: var(--ink-soft); }
  & li::before { content: ''; position: absolute; top: -8px; left: 0; width: 11px; height: 11px; border: 2px solid var(--ink-soft); border-radius: 50%; background: var(--sheet); }
  & li[data-done='true'] { color: var(--ink); }
  & li[data-done='true']::before { background: var(--bearing); border-color: var(--bearing); }
  & li[aria-current='step'] { font-weight: 600; color: var(--ink); }
  & small { display: block; font-weight: 400; }
  @media (max-width: 640px) { grid-template-columns: minmax(0, 1fr); border: 0; & li { padding: 2px 0 6px 20px; } & li::before { top: 5px; } }
  @media print { display: none; }
`;

const TURN_WORDS = { buyer: 'the buyer', owner: 'you', marketplace: 'the marketplace', nobody: 'nobody' } as const;

/** What is sold to whom, how far it has come, and whose turn it is. */
export function SaleHead({ statement: { sale, steps } }: { statement: Statement }) {
  const { style } = useLedger();
  const price = formatAmount({ minor: sale.priceMinor, currency: sale.currency }, true);
  const turn = turnAt(sale.stage);
  const place = SALE_STAGES.indexOf(sale.stage as (typeof SALE_STAGES)[number]);
  return (
    <Section>
      <Actions>
        <h2>
          <span className="name">{sale.unicode}</span> to {sale.buyer} for {price}
        </h2>
        <Link href={`/selling/names/${encodeURIComponent(sale.ascii)}`}>all of this name</Link>
      </Actions>
      <Way aria-label="Progress of this sale">
        {SALE_STAGES.map((stage, i) => {
          const taken = steps.findLast((one) => one.stage === stage);
          return (
            <li key={stage} data-done={i <= place} aria-current={i === place ? 'step' : undefined}>
              {STEP_WORDS[stage]}
              {taken && (
                <small>
                  {dayWords(taken.at, style)}, {taken.origin}
                </small>
              )}
            </li>
          );
        })}
      </Way>
      {place < 0 && (
        <Notice data-kind="caution">
          <p>
            {STEP_WORDS[sale.stage]} since {dayWords(sale.stageSince, style)}
            {sale.note || steps.at(-1)?.note ? `: ${sale.note || steps.at(-1)?.note}` : ''}.
          </p>
        </Notice>
      )}
      {turn !== 'nobody' && (
        <p>
          <b>It is {TURN_WORDS[turn]}</b>
          {turn === 'owner' ? '' : ' who acts'}: {STAGE_WORDS[sale.stage]}
          {sale.dueAt !== null && `, by ${hourWords(sale.dueAt, style)}`}.
          {sale.toTell !== null && ' The marketplace has still to be told.'}
        </p>
      )}
    </Section>
  );
}
