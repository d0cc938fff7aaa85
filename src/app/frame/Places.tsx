'use client';
import { usePathname } from 'next/navigation';
import { memo } from 'react';
import styled from 'styled-components';
import { Link } from '@/ui/controls/Link';
import type { LedgerChoice } from '@/usecases/ledgers/choice';
import { DemoMark } from './DemoMark';
import { useLedger } from './LedgerProvider';
import { ThemeSwitch } from './ThemeSwitch';

const Rail = styled.nav`
  grid-row: 1 / -1;
  display: flex;
  flex-direction: column;
  border-right: 1px solid var(--rule);
  /* On a telephone the places lie over the page, while they are asked for. */
  @media (max-width: 640px) {
    position: fixed;
    inset: 0 auto 0 0;
    z-index: 18;
    width: 232px;
    overflow: auto;
    background: var(--paper);
    &[data-open='false'] { display: none; }
  }
  @media print { display: none; }
`;

const Mark = styled(Link)`
  padding: 15px 16px 14px;
  color: var(--ink);
  font-weight: 700;
  font-size: 1.1rem;
  &:hover { text-decoration: none; }
`;

const Place = styled(Link)`
  display: flex;
  justify-content: space-between;
  gap: 6px;
  padding: 5px 16px 5px 13px;
  border-left: 3px solid transparent;
  color: var(--ink);
  &[aria-current='page'] { background: var(--sheet); border-left-color: var(--bearing); font-weight: 600; }
  & > span { color: var(--caution); font-size: 0.86rem; }
  @media (max-width: 640px) { min-height: 44px; align-items: center; }
`;

const Foot = styled.div`
  margin-top: auto;
  padding-bottom: 14px;
`;

interface PlaceLink {
  readonly href: string;
  readonly text: string;
  /** Which count of what needs action stands beside it. */
  readonly count?: 'urgent' | 'unconfirmed' | 'selling' | 'transfers' | 'acquiring';
}

const PLACES: readonly PlaceLink[] = [
  { href: '/today', text: 'Today', count: 'urgent' },
  { href: '/ledger', text: 'Ledger' },
  { href: '/renewals', text: 'Renewals', count: 'unconfirmed' },
  { href: '/rescue', text: 'Rescue' },
  { href: '/prices', text: 'Prices' },
  { href: '/acquire', text: 'Acquire', count: 'acquiring' },
  { href: '/transfers', text: 'Transfers', count: 'transfers' },
  { href: '/record', text: 'Registration record' },
  { href: '/selling', text: 'Selling', count: 'selling' },
  { href: '/prospects', text: 'Prospects' },
];

const COUNT_WORDS = {
  urgent: 'deadlines within 30 days',
  unconfirmed: 'to be confirmed',
  selling: 'to be answered',
  transfers: 'waiting for you',
  acquiring: 'to see to',
} as const;

interface PlacesProps {
  readonly choice: LedgerChoice;
  /** Who has signed in; `null` where nobody needs to. */
  readonly person: string | null;
  /** On a telephone: whether they are asked for. */
  readonly isOpen: boolean;
}

/** The rail of places, with what needs action at each. Not drawn anew when the date moves. */
export const Places = memo(function Places({ choice, person, isOpen }: PlacesProps) {
  const path = usePathname();
  const { meta } = useLedger();
  const place = (link: PlaceLink) => (
    <Place key={link.href} href={link.href} aria-current={path.startsWith(link.href) ? 'page' : undefined}>
      {link.text}
      {link.count && meta !== null && meta[link.count] > 0 && (
        <span title={COUNT_WORDS[link.count]}>
          {meta[link.count]}
          <span className="visually-hidden"> {COUNT_WORDS[link.count]}</span>
        </span>
      )}
    </Place>
  );
  return (
    <Rail id="places" aria-label="Places" data-open={isOpen}>
      <Mark href="/today">Name Ledger</Mark>
      {PLACES.map(place)}
      <Foot>
        <ThemeSwitch />
        {place({ href: '/setup', text: 'Setup' })}
        {person !== null && place({ href: '/you', text: person })}
        <DemoMark choice={choice} />
      </Foot>
    </Rail>
  );
});
