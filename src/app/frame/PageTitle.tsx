'use client';
import { createContext, type ReactNode, useCallback, useContext, useEffect, useState } from 'react';
import styled from 'styled-components';

interface Title {
  readonly title: string;
  readonly about: string;
}

const Shown = createContext<Title>({ title: '', about: '' });
const SetTitle = createContext<(title: string, about: string) => void>(() => undefined);

/** Keeps what the page is about, apart from the page: only the top line is drawn anew when it changes. */
export function TitleProvider({ children }: { children: ReactNode }) {
  const [shown, setShown] = useState<Title>({ title: '', about: '' });
  const set = useCallback((title: string, about: string) => setShown({ title, about }), []);
  return (
    <SetTitle value={set}>
      <Shown value={shown}>{children}</Shown>
    </SetTitle>
  );
}

/** Says in the top line what the page is about. */
export function useTitle(title: string, about = ''): void {
  const set = useContext(SetTitle);
  useEffect(() => set(title, about), [set, title, about]);
}

const About = styled.div`
  display: flex;
  align-items: baseline;
  gap: 14px;
  min-width: 0;
  overflow: hidden;
  white-space: nowrap;
  & h1 { white-space: nowrap; }
  & span { color: var(--ink-soft); overflow: hidden; text-overflow: ellipsis; }
  @media (max-width: 640px) { flex: 1; & span { display: none; } }
`;

/** What the page is about. */
export function PageTitle() {
  const { title, about } = useContext(Shown);
  return (
    <About>
      <h1>{title}</h1>
      {about && <span>{about}</span>}
    </About>
  );
}
