'use client';
import { Tabs } from '@/ui/controls/Tabs';

/** The names in danger, and all names. */
export function RescueTabs() {
  return (
    <Tabs
      label="Rescue"
      parts={[
        { href: '/rescue', text: 'In danger' },
        { href: '/rescue/all', text: 'All names: which should I drop?' },
      ]}
    />
  );
}
