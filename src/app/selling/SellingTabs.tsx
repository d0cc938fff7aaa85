'use client';
import { Tabs } from '@/ui/controls/Tabs';

const PARTS = [
  { href: '/selling', text: 'To do' },
  { href: '/selling/listings', text: 'Listings' },
  { href: '/selling/sold', text: 'Sold' },
  { href: '/selling/comparables', text: 'Past sales' },
] as const;

/** The parts of Selling. */
export function SellingTabs() {
  return <Tabs label="Selling" parts={PARTS} />;
}
