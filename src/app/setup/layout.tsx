import type { ReactNode } from 'react';
import { hasPractice } from '@/usecases/practice/practice';
import { SetupTabs } from './SetupTabs';

export default function SetupLayout({ children }: { children: ReactNode }) {
  return (
    <>
      <SetupTabs practice={hasPractice()} />
      {children}
    </>
  );
}
