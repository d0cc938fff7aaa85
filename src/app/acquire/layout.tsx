import type { ReactNode } from 'react';
import { Tabs } from '@/ui/controls/Tabs';

const PARTS = [
  { href: '/acquire', text: 'Find' },
  { href: '/acquire/shortlist', text: 'Shortlist' },
  { href: '/acquire/registered', text: 'Registering' },
  { href: '/acquire/waiting', text: 'Asked and waited for' },
] as const;

export default function AcquireLayout({ children }: { children: ReactNode }) {
  return (
    <>
      <Tabs label="Acquire" parts={PARTS} />
      {children}
    </>
  );
}
