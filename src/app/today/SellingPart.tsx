'use client';
import Link from 'next/link';
import type { AgendaItem } from '@/core/selling';
import { ButtonLink } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Ruled, Section } from '@/ui/text/Sheet';
import { AGENDA_WORDS } from '@/ui/text/sellingWords';
import { Wide } from '@/ui/text/Wide';
import { daysLeft, daysWords, dayWords } from '@/ui/text/words';
import { useLedger } from '../frame/LedgerProvider';
import { agendaPage } from '../frame/pages';

/** What awaits the owner in selling, the most urgent first. */
export function SellingPart({
  selling: { total, items },
}: {
  selling: { readonly total: number; readonly items: readonly AgendaItem[] };
}) {
  const { style, today } = useLedger();
  return (
    <Section aria-label="Selling">
      <Actions>
        <h2>Selling: {total.toLocaleString('en')} to see to</h2>
        <ButtonLink href="/selling">To Selling</ButtonLink>
      </Actions>
      <Wide>
        <Ruled aria-label="Selling">
          <tbody>
            {items.map((item) => (
              <tr key={`${item.kind} ${item.ascii} ${agendaPage(item)}`}>
                <td>
                  <Link href={agendaPage(item)} className="name">
                    {item.unicode}
                  </Link>
                </td>
                <td>{AGENDA_WORDS[item.kind]}</td>
                <td>{item.who}</td>
                <td>{item.by === null ? '' : dayWords(item.by, style)}</td>
                <td className="figure">{item.by === null ? '' : daysWords(daysLeft(item.by, today, style))}</td>
                <td className="figure">
                  {item.minor !== null && item.currency !== null
                    ? formatAmount({ minor: item.minor, currency: item.currency }, true)
                    : ''}
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      </Wide>
    </Section>
  );
}
