'use client';
import type { ReactNode } from 'react';
import { I18nProvider } from 'react-aria-components';
import styled from 'styled-components';
import { GlobalStyle } from '@/ui/theme/GlobalStyle';

const Ground = styled.div`
  min-height: 100vh;
  display: grid;
  grid-template-columns: minmax(24px, 1fr) minmax(0, 460px) minmax(24px, 2fr);
  background: var(--sheet);
  border-left: 6px solid var(--land);
  @media (max-width: 640px) { grid-template-columns: 14px minmax(0, 1fr) 14px; }
`;

const Inner = styled.main`
  grid-column: 2;
  display: flex;
  flex-direction: column;
  gap: 22px;
  padding: 9vh 0 40px;
  & > h1 { font-weight: 700; font-size: 1.1rem; }
`;

/** A page for who is not in yet: nothing of the ledger is loaded or named. */
export function Doorway({ children }: { children: ReactNode }) {
  return (
    <I18nProvider locale="en-GB">
      <GlobalStyle />
      <Ground>
        <Inner>
          <h1>Name Ledger</h1>
          {children}
        </Inner>
      </Ground>
    </I18nProvider>
  );
}
