'use client';
import { Tabs } from '@/ui/controls/Tabs';

const PARTS = [
  { href: '/setup/accounts', text: 'Accounts', hasBelow: true },
  { href: '/setup/policies', text: 'Policies' },
  { href: '/setup/marketplaces', text: 'Marketplaces', hasBelow: true },
  { href: '/setup/shop', text: 'Shop window' },
  { href: '/setup/money', text: 'Money' },
  { href: '/setup/mail', text: 'Mail' },
  { href: '/setup/records', text: 'Records' },
  { href: '/setup/people', text: 'People', hasBelow: true },
  { href: '/setup/programs', text: 'Programs' },
  { href: '/setup/backup', text: 'Ledger' },
  { href: '/setup/log', text: 'Log' },
  { href: '/setup/practice', text: 'Practice' },
] as const;

/** The parts of Setup. */
export function SetupTabs({ practice }: { practice: boolean }) {
  return <Tabs label="Setup" parts={PARTS.filter((part) => practice || part.href !== '/setup/practice')} />;
}
