'use client';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import styled from 'styled-components';

const Tabs = styled.nav`
  display: flex;
  gap: 18px;
  flex: none;
  padding: 10px 26px 0;
  border-bottom: 1px solid var(--rule);
  & a { padding: 4px 0 8px; color: var(--ink); border-bottom: 2px solid transparent; }
  & a[aria-current='page'] { border-color: var(--bearing); font-weight: 600; }
  @media print { display: none; }
`;

const PARTS = [
  { href: '/selling', text: 'To do' },
  { href: '/selling/listings', text: 'Listings' },
  { href: '/selling/sold', text: 'Sold' },
  { href: '/selling/comparables', text: 'Past sales' },
] as const;

/** The parts of Selling. */
export function SellingTabs() {
  const path = usePathname();
  return (
    <Tabs aria-label="Selling">
      {PARTS.map(({ href, text }) => (
        <Link key={href} href={href} aria-current={path === href ? 'page' : undefined}>
          {text}
        </Link>
      ))}
    </Tabs>
  );
}
