'use client';
import { useCallback, useState } from 'react';
import { type Draft, type Drafts, draftsIn, type PriceName, withPrice } from '@/core/selling';

const MOST_UNDO = 50;

/** The drafts as they are written, with the way back. */
export function useDrafts(first: () => Drafts) {
  const [{ drafts, past }, setWork] = useState<{ readonly drafts: Drafts; readonly past: readonly Drafts[] }>(() => ({
    drafts: first(),
    past: [],
  }));
  const change = useCallback(
    (next: (now: Drafts) => Drafts) =>
      setWork((now) => ({ drafts: next(now.drafts), past: [...now.past.slice(-MOST_UNDO), now.drafts] })),
    [],
  );
  const edit = useCallback(
    (nameIds: readonly number[], part: (draft: Draft) => Partial<Draft>) =>
      change((now) => {
        const next = new Map(now);
        for (const nameId of nameIds) {
          const draft = now.get(nameId);
          if (draft) next.set(nameId, { ...draft, ...part(draft) });
        }
        return next;
      }),
    [change],
  );
  const setPrice = useCallback(
    (nameId: number, price: PriceName, minor: number | null, unread: string | null = null) =>
      edit([nameId], (draft) => withPrice(draft, price, minor, unread)),
    [edit],
  );
  const editOne = useCallback((nameId: number, part: Partial<Draft>) => edit([nameId], () => part), [edit]);
  const setCurrency = useCallback((currency: string) => change((now) => draftsIn(now, currency)), [change]);
  const undo = useCallback(
    () => setWork((now) => ({ drafts: now.past.at(-1) ?? now.drafts, past: now.past.slice(0, -1) })),
    [],
  );
  return { drafts, canUndo: past.length > 0, change, edit, editOne, setPrice, setCurrency, undo };
}
