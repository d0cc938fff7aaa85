'use client';
import { Tabs } from '@/ui/controls/Tabs';

const PARTS = [
  { href: '/setup/accounts', text: 'Accounts', hasBelow: true },
  { href: '/setup/policies', text: 'Policies' },
  { href: '/setup/marketplaces', text: 'Marketplaces', hasBelow: true },
  { href: '/setup/office', text: 'Office and calendar' },
  { href: '/setup/backup', text: 'Back up and restore' },
  { href: '/setup/log', text: 'Log' },
  { href: '/setup/practice', text: 'Practice' },
] as const;

/** The parts of Setup. */
export function SetupTabs({ practice }: { practice: boolean }) {
  return <Tabs label="Setup" parts={PARTS.filter((part) => practice || part.href !== '/setup/practice')} />;
}
