'use client';
import { Menu as MenuSign } from 'lucide-react';
import Link from 'next/link';
import { usePathname, useRouter } from 'next/navigation';
import { createContext, memo, type ReactNode, useCallback, useContext, useEffect, useState } from 'react';
import { I18nProvider, RouterProvider } from 'react-aria-components';
import styled from 'styled-components';
import type { NumberStyle } from '@/core/money';
import { dayIn, formatDay, instant } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { Toasts } from '@/ui/overlay/Toasts';
import { StripTextures } from '@/ui/strip/LifecycleStrip';
import { showFiguresIn } from '@/ui/text/figures';
import { restsWords } from '@/ui/text/todayWords';
import { GlobalStyle } from '@/ui/theme/GlobalStyle';
import type { LedgerChoice } from '@/usecases/ledgers/choice';
import { CommandBox, type UndoLast } from './CommandBox';
import { DateControl } from './DateControl';
import { DemoMark } from './DemoMark';
import { Keys } from './Keys';
import { LedgerProvider, useDay, useLedger } from './LedgerProvider';
import { MailDrop } from './MailDrop';
import { ThemeSwitch } from './ThemeSwitch';
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

const Rail = styled.nav`
  grid-row: 1 / -1;
  display: flex;
  flex-direction: column;
  border-right: 1px solid var(--rule);
  /* On a telephone the places lie over the page, while they are asked for. */
  @media (max-width: 640px) {
    position: fixed;
    inset: 0 auto 0 0;
    z-index: 18;
    width: 232px;
    overflow: auto;
    background: var(--paper);
    &[data-open='false'] { display: none; }
  }
  @media print { display: none; }
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

const Mark = styled(Link)`
  padding: 15px 16px 14px;
  color: var(--ink);
  font-weight: 700;
  font-size: 1.1rem;
  &:hover { text-decoration: none; }
`;

const Place = styled(Link)`
  display: flex;
  justify-content: space-between;
  gap: 6px;
  padding: 5px 16px 5px 13px;
  border-left: 3px solid transparent;
  color: var(--ink);
  &[aria-current='page'] { background: var(--sheet); border-left-color: var(--bearing); font-weight: 600; }
  & > span { color: var(--caution); font-size: 0.86rem; }
  @media (max-width: 640px) { min-height: 44px; align-items: center; }
`;

const Foot = styled.div`
  margin-top: auto;
  padding-bottom: 14px;
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

const Ahead = styled.div`
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 5px 18px;
  background: var(--projection-pale);
  border-bottom: 1px solid var(--projection);
`;

/** Not drawn anew when the date moves. */
const StillCommandBox = memo(CommandBox);

const TitleContext = createContext<(title: string, about: string) => void>(() => undefined);

/** Says in the top line what the page is about. */
export function useTitle(title: string, about = ''): void {
  const set = useContext(TitleContext);
  useEffect(() => set(title, about), [set, title, about]);
}

interface PlaceLink {
  readonly href: string;
  readonly text: string;
  /** Which count of what needs action stands beside it. */
  readonly count?: 'urgent' | 'unconfirmed' | 'selling' | 'transfers' | 'acquiring';
}

const PLACES: readonly PlaceLink[] = [
  { href: '/today', text: 'Today', count: 'urgent' },
  { href: '/ledger', text: 'Ledger' },
  { href: '/renewals', text: 'Renewals', count: 'unconfirmed' },
  { href: '/rescue', text: 'Rescue' },
  { href: '/prices', text: 'Prices' },
  { href: '/acquire', text: 'Acquire', count: 'acquiring' },
  { href: '/transfers', text: 'Transfers', count: 'transfers' },
  { href: '/record', text: 'Registration record' },
  { href: '/selling', text: 'Selling', count: 'selling' },
  { href: '/prospects', text: 'Prospects' },
];

const COUNT_WORDS = {
  urgent: 'deadlines within 30 days',
  unconfirmed: 'to be confirmed',
  selling: 'to be answered',
  transfers: 'waiting for you',
  acquiring: 'to see to',
} as const;

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
          <Inside undoLast={undoLast} choice={choice} person={person}>
            {children}
          </Inside>
        </LedgerProvider>
        <Toasts />
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
  const { meta } = useLedger();
  const { daysAhead } = useDay();
  const [title, setTitle] = useState({ title: '', about: '' });
  const titled = useCallback((text: string, about: string) => setTitle({ title: text, about }), []);
  const [areKeysShown, setKeysShown] = useState(false);
  const showKeys = useCallback(() => setKeysShown(true), []);
  const ahead = daysAhead > 0;
  const [arePlacesOpen, setPlacesOpen] = useState(false);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a place that was gone to closes the list of places
  useEffect(() => setPlacesOpen(false), [path]);

  // The way in has no frame: a session that has ended leads there, and the page is loaded anew.
  useEffect(() => {
    if (path === '/sign-in') window.location.replace(`/sign-in${window.location.search}`);
  }, [path]);

  const closePlaces = useCallback(() => setPlacesOpen(false), []);
  useFrameKeys(showKeys, closePlaces);

  const place = (link: PlaceLink) => (
    <Place key={link.href} href={link.href} aria-current={path.startsWith(link.href) ? 'page' : undefined}>
      {link.text}
      {link.count && meta !== null && meta[link.count] > 0 && (
        <span title={COUNT_WORDS[link.count]}>
          {meta[link.count]}
          <span className="visually-hidden"> {COUNT_WORDS[link.count]}</span>
        </span>
      )}
    </Place>
  );
  return (
    <TitleContext value={titled}>
      <Whole data-ahead={ahead}>
        {arePlacesOpen && <Veil onClick={closePlaces} />}
        <Rail id="places" aria-label="Places" data-open={arePlacesOpen}>
          <Mark href="/today">Name Ledger</Mark>
          {PLACES.map(place)}
          <Foot>
            <ThemeSwitch />
            {place({ href: '/setup', text: 'Setup' })}
            {person !== null && place({ href: '/you', text: person })}
            <DemoMark choice={choice} />
          </Foot>
        </Rail>
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
          <About>
            <h1>{title.title}</h1>
            {title.about && <span>{title.about}</span>}
          </About>
          <StillCommandBox undoLast={undoLast} onKeys={showKeys} />
          <DateControl />
        </Top>
        <Main data-ahead={ahead}>
          <TroubleBar />
          {ahead && <AheadBar />}
          {children}
        </Main>
        <Keys isOpen={areKeysShown} onClose={() => setKeysShown(false)} />
      </Whole>
    </TitleContext>
  );
}

/** Says that what is seen is another day than today, what it rests on, and how to come back. */
function AheadBar() {
  const { style, meta } = useLedger();
  const { day, moveDate } = useDay();
  return (
    <Ahead role="status">
      <strong>As of {formatDay(dayIn(day, style.zone))}, if nothing is done.</strong>
      <span className="soft">
        Looking ahead changes nothing
        {meta !== null && meta.unknowns.resting > 0 && `; ${restsWords(meta.unknowns)}`}.
      </span>
      <Button data-kind="plain" onPress={() => moveDate(0)}>
        Back to today (T)
      </Button>
    </Ahead>
  );
}

/** The keys that hold on every place, except where somebody writes. */
function useFrameKeys(onShowKeys: () => void, onClosePlaces: () => void) {
  const { daysAhead, moveDate } = useDay();
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
      if (event.key === ']') moveDate(daysAhead + 7);
      if (event.key === '[') moveDate(daysAhead - 7);
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, [daysAhead, moveDate, onShowKeys, onClosePlaces]);
}
