'use client';
import Link from 'next/link';
import { Ruled, Section } from '@/ui/text/Sheet';
import { dayWords, namesWords } from '@/ui/text/words';
import type { TransferView } from '@/usecases/moving/underWay';
import { useLedger } from '../frame/LedgerProvider';
import { namePage } from '../frame/pages';

const SHOWN = 10;

/** Transfers that wait for the person, or have stood longer than they usually do. */
export function TransfersPart({ transfers }: { transfers: readonly TransferView[] }) {
  const { style } = useLedger();
  return (
    <Section aria-label="Transfers that wait">
      <h2>
        Transfers that wait: {namesWords(transfers.length)} · <Link href="/transfers">to the transfers</Link>
      </h2>
      <Ruled aria-label="Transfers that wait">
        <tbody>
          {transfers.slice(0, SHOWN).map(({ id, ascii, unicode, from, to, turn, since, problem }) => (
            <tr key={id}>
              <td>
                <Link href={namePage(ascii)} className="name">
                  {unicode}
                </Link>
              </td>
              <td>
                {from} to {to}
              </td>
              <td>
                {turn === 'you' ? 'waits for you' : 'later than usual'} since {dayWords(since, style)}
                {problem && <div className="soft">{problem}</div>}
              </td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Section>
  );
}
