import type { ReactNode } from 'react';
import { deps } from '@/usecases/deps';
import { savedViews } from '@/usecases/names/views';
import { allAssumptions } from '@/usecases/prospects/assumptions';
import { ProspectsProvider } from './ProspectsContext';
import { ProspectsTabs } from './ProspectsTabs';

export default async function ProspectsLayout({ children }: { children: ReactNode }) {
  const [first, views] = await Promise.all([allAssumptions(deps()), savedViews(deps())]);
  return (
    <ProspectsProvider first={first} views={views}>
      <ProspectsTabs />
      {children}
    </ProspectsProvider>
  );
}
