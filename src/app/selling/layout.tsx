import type { ReactNode } from 'react';
import { SellingTabs } from './SellingTabs';

export default function SellingLayout({ children }: { children: ReactNode }) {
  return (
    <>
      <SellingTabs />
      {children}
    </>
  );
}
