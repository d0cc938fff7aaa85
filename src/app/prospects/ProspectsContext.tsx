'use client';
import { createContext, type ReactNode, useCallback, useContext, useMemo, useState } from 'react';
import { type LedgerView, viewFromQuery } from '@/core/ledger';
import type { Assumptions } from '@/core/odds';
import type { Asked, NamedStrategy, Strategy } from '@/core/prospects';
import type { SavedView } from '@/usecases/names/views';
import type { AllAssumptions } from '@/usecases/prospects/assumptions';

/** What is thought of doing with some names, before it is done. */
export interface Thought {
  readonly dropped: readonly number[];
  readonly asked: readonly Asked[];
}

/** What all parts of Prospects share: the assumptions as they are being moved, and what is compared. */
export interface Prospects {
  readonly assumptions: Assumptions;
  readonly known: AllAssumptions;
  readonly views: readonly SavedView[];
  /** The saved view by which names are grouped. */
  readonly view: LedgerView | null;
  readonly years: number;
  readonly seed: number;
  readonly compared: readonly NamedStrategy[];
  readonly thought: Thought | null;
  /** Rises when whole assumptions are taken up: fields that hold what was typed begin anew. */
  readonly takenUp: number;
  assume(more: Partial<Assumptions>): void;
  takeUp(assumptions: Assumptions): void;
  take(known: AllAssumptions): void;
  lookAhead(years: number): void;
  drawAgain(seed: number): void;
  compare(strategies: readonly NamedStrategy[]): void;
  think(thought: Thought | null): void;
}

const Context = createContext<Prospects | null>(null);

export function useProspects(): Prospects {
  const prospects = useContext(Context);
  if (!prospects) throw new Error('useProspects outside of Prospects');
  return prospects;
}

/** Everything is held against this one. */
export const STANDING: NamedStrategy = { label: 'as it stands', strategy: { kind: 'as it stands' } };

/** The strategies that are played: as it stands, those that are compared, and what is thought of. */
export function strategiesOf({ compared, thought }: Pick<Prospects, 'compared' | 'thought'>): NamedStrategy[] {
  const strategy: Strategy | null = thought && { kind: 'thought', ...thought };
  return [STANDING, ...compared, ...(strategy ? [{ label: 'what you think of', strategy }] : [])];
}

const FIRST_YEARS = 5;
/** The first picture is the same for everyone who looks; another seed is drawn where that is asked. */
const FIRST_SEED = 1;

export function ProspectsProvider({
  first,
  views,
  children,
}: {
  first: AllAssumptions;
  views: readonly SavedView[];
  children: ReactNode;
}) {
  const [known, take] = useState(first);
  const [assumptions, setAssumptions] = useState(first.inUse);
  const [years, lookAhead] = useState(FIRST_YEARS);
  const [seed, drawAgain] = useState(FIRST_SEED);
  const [compared, compare] = useState<readonly NamedStrategy[]>([]);
  const [thought, think] = useState<Thought | null>(null);
  const assume = useCallback((more: Partial<Assumptions>) => setAssumptions((before) => ({ ...before, ...more })), []);
  const [takenUp, setTakenUp] = useState(0);
  const takeUp = useCallback((whole: Assumptions) => {
    setAssumptions(whole);
    setTakenUp((before) => before + 1);
  }, []);
  const view = useMemo(() => {
    const found = assumptions.grouping === 'view' ? views.find(({ id }) => id === assumptions.viewId) : undefined;
    return found ? viewFromQuery(new URLSearchParams(found.query)) : null;
  }, [assumptions.grouping, assumptions.viewId, views]);
  const value = useMemo(
    () => ({
      assumptions,
      known,
      views,
      view,
      years,
      seed,
      compared,
      thought,
      takenUp,
      assume,
      takeUp,
      take,
      lookAhead,
      drawAgain,
      compare,
      think,
    }),
    [assumptions, known, views, view, years, seed, compared, thought, takenUp, assume, takeUp],
  );
  return <Context value={value}>{children}</Context>;
}
