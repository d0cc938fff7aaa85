'use client';
import Link from 'next/link';
import { ButtonLink } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { Ruled, Section } from '@/ui/text/Sheet';
import { dayWords } from '@/ui/text/words';
import type { AcquiringItem } from '@/usecases/acquiring/today';
import { useLedger } from '../frame/LedgerProvider';

const WHAT_WORDS: Readonly<Record<AcquiringItem['what'], string>> = {
  'to register by hand': 'register it at its registrar, and write down what was charged',
  'in doubt': 'its registration is in doubt: look whether it went through',
  'answer overdue': 'its holder has not answered in time',
  'to pay': 'agreed with its holder: pay it',
  'to arrive': 'paid: look whether it has arrived',
  'being tried': 'its release is waited for by the minute',
  got: 'registered at its release',
  lost: 'somebody else was faster at its release',
};

/** What acquiring wants of a person, and its news. */
export function AcquiringPart({ items }: { items: readonly AcquiringItem[] }) {
  const { style } = useLedger();
  return (
    <Section aria-label="Acquiring">
      <Actions>
        <h2>Acquiring: {items.length.toLocaleString('en')} to see to</h2>
        <ButtonLink href="/acquire">To Acquire</ButtonLink>
      </Actions>
      <Ruled aria-label="Acquiring">
        <tbody>
          {items.map(({ ascii, unicode, what, since, href }) => (
            <tr key={`${ascii} ${what}`}>
              <td>
                <Link href={href} className="name">
                  {unicode}
                </Link>
              </td>
              <td>{WHAT_WORDS[what]}</td>
              <td className="soft">since {dayWords(since, style)}</td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Section>
  );
}
