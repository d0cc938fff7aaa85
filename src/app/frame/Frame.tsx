'use client';
import { Menu as MenuSign } from 'lucide-react';
import { usePathname, useRouter } from 'next/navigation';
import { memo, type ReactNode, useCallback, useEffect, useState } from 'react';
import { I18nProvider, RouterProvider } from 'react-aria-components';
import styled from 'styled-components';
import type { NumberStyle } from '@/core/money';
import { instant } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Toasts } from '@/ui/overlay/Toasts';
import { StripTextures } from '@/ui/strip/LifecycleStrip';
import { showFiguresIn } from '@/ui/text/figures';
import { GlobalStyle } from '@/ui/theme/GlobalStyle';
import type { LedgerChoice } from '@/usecases/ledgers/choice';
import { AheadBar } from './AheadBar';
import { CommandBox, type UndoLast } from './CommandBox';
import { DateControl } from './DateControl';
import { Keys } from './Keys';
import { LedgerProvider, useIsAhead, useMoveDate } from './LedgerProvider';
import { LostAnswers } from './LostAnswers';
import { MailDrop } from './MailDrop';
import { PageTitle, TitleProvider } from './PageTitle';
import { Places } from './Places';
import { TroubleBar } from './TroubleBar';

const Whole = styled.div`
  display: grid;
  grid-template: 52px minmax(0, 1fr) / 158px minmax(0, 1fr);
  height: 100vh;
  height: 100dvh;
  &[data-ahead='true']::after { content: ''; position: fixed; inset: 0; z-index: 15; border: 3px solid var(--projection); pointer-events: none; }
  @media (max-width: 640px) { grid-template: auto minmax(0, 1fr) / minmax(0, 1fr); }
  @media print { display: block; height: auto; }
`;

const Veil = styled.div`
  position: fixed;
  inset: 0;
  z-index: 17;
  background: rgb(10 25 35 / 38%);
  @media (min-width: 641px) { display: none; }
`;

const OpenPlaces = styled(Button)`
  display: none;
  @media (max-width: 640px) { display: inline-flex; width: 44px; min-height: 44px; margin-left: -8px; padding: 0; justify-content: center; }
`;

const Top = styled.header`
  display: flex;
  align-items: center;
  gap: 18px;
  padding: 0 18px;
  border-bottom: 1px solid var(--rule);
  min-width: 0;
  @media (max-width: 640px) { flex-wrap: wrap; gap: 0 10px; padding: 2px 12px; }
  @media (max-width: 640px) and (max-height: 520px) { flex-wrap: nowrap; padding-block: 0; }
  @media print { display: none; }
`;

const Main = styled.main`
  position: relative;
  display: flex;
  flex-direction: column;
  min-height: 0;
  overflow: auto;
  /* What is gone to by keyboard stops above the bar at the foot, not under it. */
  scroll-padding-bottom: 64px;
  background: var(--sheet);
  @media (max-width: 640px) { scroll-padding-bottom: 132px; }
  @media print { overflow: visible; }
`;

/** Not drawn anew when the date moves. */
const StillCommandBox = memo(CommandBox);

/** The frame of every screen: the rail of places, the top line, and the page. */
export function Frame({
  now,
  zone,
  homeCurrency,
  numberStyle,
  undoLast,
  choice,
  person,
  children,
}: {
  now: string;
  zone: string;
  homeCurrency: string;
  numberStyle: NumberStyle;
  undoLast: UndoLast;
  choice: LedgerChoice;
  /** Who has signed in; `null` where nobody needs to. */
  person: string | null;
  children: ReactNode;
}) {
  const router = useRouter();
  showFiguresIn(numberStyle);
  return (
    <I18nProvider locale="en-GB">
      <RouterProvider navigate={router.push}>
        <GlobalStyle />
        <StripTextures />
        <LedgerProvider now={instant(now)} zone={zone} homeCurrency={homeCurrency}>
          <TitleProvider>
            <Inside undoLast={undoLast} choice={choice} person={person}>
              {children}
            </Inside>
          </TitleProvider>
        </LedgerProvider>
        <Toasts />
        <LostAnswers />
        <MailDrop />
      </RouterProvider>
    </I18nProvider>
  );
}

interface InsideProps {
  readonly undoLast: UndoLast;
  readonly choice: LedgerChoice;
  readonly person: string | null;
  readonly children: ReactNode;
}

function Inside({ undoLast, choice, person, children }: InsideProps) {
  const path = usePathname();
  const isAhead = useIsAhead();
  const [areKeysShown, setKeysShown] = useState(false);
  const showKeys = useCallback(() => setKeysShown(true), []);
  const [arePlacesOpen, setPlacesOpen] = useState(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a place that was gone to closes the list of places
  useEffect(() => setPlacesOpen(false), [path]);

  // The way in has no frame: a session that has ended leads there, and the page is loaded anew.
  useEffect(() => {
    if (path === '/sign-in') window.location.replace(`/sign-in${window.location.search}`);
  }, [path]);

  const closePlaces = useCallback(() => setPlacesOpen(false), []);
  useFrameKeys(showKeys, closePlaces);

  return (
    <Whole data-ahead={isAhead}>
      {arePlacesOpen && <Veil onClick={closePlaces} />}
      <Places choice={choice} person={person} isOpen={arePlacesOpen} />
      <Top>
        <OpenPlaces
          data-kind="plain"
          aria-label="Places"
          aria-expanded={arePlacesOpen}
          aria-controls="places"
          onPress={() => setPlacesOpen(!arePlacesOpen)}
        >
          <MenuSign size={20} aria-hidden />
        </OpenPlaces>
        <PageTitle />
        <StillCommandBox undoLast={undoLast} onKeys={showKeys} />
        <DateControl />
      </Top>
      <Main data-ahead={isAhead}>
        <TroubleBar />
        {isAhead && <AheadBar />}
        {children}
      </Main>
      <Keys isOpen={areKeysShown} onClose={() => setKeysShown(false)} />
    </Whole>
  );
}

/** The keys that hold on every place, except where somebody writes. */
function useFrameKeys(onShowKeys: () => void, onClosePlaces: () => void) {
  const { moveDate, moveBy } = useMoveDate();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        (event.target as HTMLElement).closest('input:not([type=range]), textarea, [role=dialog]')
      )
        return;
      if (event.key === 'Escape') onClosePlaces();
      if (event.key === '?') onShowKeys();
      if (event.key === 't') moveDate(0);
      if (event.key === ']') moveBy(7);
      if (event.key === '[') moveBy(-7);
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [moveDate, moveBy, onShowKeys, onClosePlaces]);
}
