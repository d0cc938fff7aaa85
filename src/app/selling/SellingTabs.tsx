'use client';
import { Tabs } from '@/ui/controls/Tabs';

const PARTS = [
  { href: '/selling', text: 'To do', also: ['/selling/offers'] },
  { href: '/selling/listings', text: 'Listings', also: ['/selling/names', '/selling/auctions'] },
  { href: '/selling/sold', text: 'Sold', also: ['/selling/sales'] },
  { href: '/selling/comparables', text: 'Past sales' },
] as const;

/** The parts of Selling. */
export function SellingTabs() {
  return <Tabs label="Selling" parts={PARTS} />;
}
