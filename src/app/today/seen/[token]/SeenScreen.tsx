'use client';
import type { ReactNode } from 'react';
import { Page, Section } from '@/ui/text/Sheet';
import { useTitle } from '../../../frame/Frame';

export function SeenScreen({ children }: { children: ReactNode }) {
  useTitle('Seen');
  return (
    <Page>
      <Section>{children}</Section>
    </Page>
  );
}
