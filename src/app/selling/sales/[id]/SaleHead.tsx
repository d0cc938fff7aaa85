'use client';
import styled from 'styled-components';
import { SALE_STAGES, turnAt } from '@/core/selling';
import { Link } from '@/ui/controls/Link';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Answer, Notice, Section } from '@/ui/text/Sheet';
import { STAGE_WORDS } from '@/ui/text/sellingWords';
import { dayWords, hourWords } from '@/ui/text/words';
import type { Statement } from '@/usecases/selling/statement';
import { useLedger } from '../../../frame/LedgerProvider';
import { STEP_WORDS } from './stepWords';

const Way = styled.ol`
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  & li { position: relative; padding: 20px 8px 0 0; color: var(--ink-soft); }
  /* The same strip as a life: what is passed is paid land, the present stage is hatched, what is to come is empty. */
  & li::before { content: ''; position: absolute; top: 0; left: 0; right: 3px; height: 14px; border: 1px solid var(--rule); background: var(--sheet); }
  & li[data-done='true'] { color: var(--ink); }
  & li[data-done='true']::before { background: var(--land); border-color: var(--land-edge); }
  & li[aria-current='step']:not(:last-child)::before { background: repeating-linear-gradient(135deg, var(--shoal-edge) 0 2px, var(--shoal-pale) 2px 6px); border-color: var(--shoal-edge); }
  & li[data-overdue='true']:not(:last-child)::before { background: repeating-linear-gradient(135deg, var(--caution) 0 1.5px, transparent 1.5px 6px), repeating-linear-gradient(45deg, var(--caution) 0 1.5px, var(--caution-pale) 1.5px 6px); border-color: var(--caution); }
  & li[aria-current='step'] { font-weight: 600; color: var(--ink); }
  & small { display: block; font-weight: 400; }
  @media (max-width: 640px) { grid-template-columns: minmax(0, 1fr); gap: 6px; & li { padding: 0 0 0 30px; } & li::before { top: 3px; right: auto; width: 22px; } }
  @media print { display: none; }
`;

const TURN_WORDS = { buyer: 'the buyer', owner: 'you', marketplace: 'the marketplace', nobody: 'nobody' } as const;

/** What is sold to whom, how far it has come, and whose turn it is. */
export function SaleHead({ statement: { sale, steps } }: { statement: Statement }) {
  const { style, today } = useLedger();
  const isOverdue = sale.dueAt !== null && sale.dueAt < today;
  const price = formatAmount({ minor: sale.priceMinor, currency: sale.currency }, true);
  const turn = turnAt(sale.stage);
  const place = SALE_STAGES.indexOf(sale.stage as (typeof SALE_STAGES)[number]);
  return (
    <Section>
      <Actions>
        <Answer>
          <span className="name">{sale.unicode}</span> to {sale.buyer} for {price}
        </Answer>
        <Link href={`/selling/names/${encodeURIComponent(sale.ascii)}`}>all of this name</Link>
      </Actions>
      <Way aria-label="Progress of this sale">
        {SALE_STAGES.map((stage, i) => {
          const taken = steps.findLast((one) => one.stage === stage);
          return (
            <li
              key={stage}
              data-done={i <= place}
              data-overdue={i === place && isOverdue}
              aria-current={i === place ? 'step' : undefined}
            >
              {STEP_WORDS[stage]}
              {taken && (
                <small>
                  {dayWords(taken.at, style)}, {taken.origin}
                  {taken.person !== null && `, ${taken.person}`}
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
          {sale.dueAt !== null && !isOverdue && `, by ${hourWords(sale.dueAt, style)}`}
          {isOverdue && sale.dueAt !== null && (
            <span className="caution">, due since {hourWords(sale.dueAt, style)}</span>
          )}
          .{sale.toTell !== null && ' The marketplace has still to be told.'}
        </p>
      )}
    </Section>
  );
}
