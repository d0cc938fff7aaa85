'use client';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import styled from 'styled-components';

const Tabs = styled.nav`
  display: flex;
  gap: 18px;
  padding: 10px 26px 0;
  border-bottom: 1px solid var(--rule);
  & a { padding: 4px 0 8px; color: var(--ink); border-bottom: 2px solid transparent; }
  & a[aria-current='page'] { border-color: var(--bearing); font-weight: 600; }
`;

const PARTS = [
  { href: '/setup/accounts', text: 'Accounts' },
  { href: '/setup/policies', text: 'Policies' },
  { href: '/setup/marketplaces', text: 'Marketplaces' },
  { href: '/setup/office', text: 'Office and calendar' },
  { href: '/setup/backup', text: 'Back up and restore' },
  { href: '/setup/log', text: 'Log' },
  { href: '/setup/practice', text: 'Practice' },
] as const;

/** The parts of Setup. */
export function SetupTabs({ practice }: { practice: boolean }) {
  const path = usePathname();
  return (
    <Tabs aria-label="Setup">
      {PARTS.filter((part) => practice || part.href !== '/setup/practice').map(({ href, text }) => (
        <Link key={href} href={href} aria-current={path.startsWith(href) ? 'page' : undefined}>
          {text}
        </Link>
      ))}
    </Tabs>
  );
}
