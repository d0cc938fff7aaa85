import type { ReactNode } from 'react';
import { SetupTabs } from './SetupTabs';

export default function SetupLayout({ children }: { children: ReactNode }) {
  return (
    <>
      <SetupTabs />
      {children}
    </>
  );
}
