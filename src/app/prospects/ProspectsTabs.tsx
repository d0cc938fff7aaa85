'use client';
import { Tabs } from '@/ui/controls/Tabs';

/** The parts of Prospects: ahead, name by name, what to drop, and what came of it. */
export function ProspectsTabs() {
  return (
    <Tabs
      label="Prospects"
      parts={[
        { href: '/prospects', text: 'Outlook' },
        { href: '/prospects/names', text: 'Names worth another year' },
        { href: '/prospects/drop-list', text: 'Drop list' },
        { href: '/prospects/kept', text: 'Looking back', hasBelow: true },
        { href: '/prospects/review', text: 'Year’s review', hasBelow: true },
      ]}
    />
  );
}
