'use client';
import { usePathname, useSearchParams } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import { type LedgerView, queryFromView, viewFromQuery } from '@/core/ledger';

/** The address is written once the hand rests: the router draws the page anew for it. */
const REST_MS = 200;

/**
 * The view of the ledger, kept in the address so that it can be bookmarked. It lives here first and is written to the address
 * after: typing must not wait for the router. `settle` writes it at once, before the page is left.
 */
export function useView(): {
  view: LedgerView;
  show: (view: LedgerView) => void;
  settle: () => void;
  columns: string | null;
} {
  const path = usePathname();
  const params = useSearchParams();
  const query = params.toString();
  const [view, setView] = useState(() => viewFromQuery(new URLSearchParams(query)));
  const written = useRef(new Set<string>());
  const newest = useRef(query);
  /** What is still to be written. */
  const pending = useRef<{ readonly text: string; readonly timer: ReturnType<typeof setTimeout> }>(null);

  const forget = useCallback(() => {
    if (pending.current) clearTimeout(pending.current.timer);
    pending.current = null;
  }, []);
  const settle = useCallback(() => {
    if (!pending.current) return;
    const { text } = pending.current;
    forget();
    if (text === new URLSearchParams(window.location.search).toString()) return;
    written.current.add(text);
    newest.current = text;
    window.history.replaceState(null, '', text === '' ? path : `${path}?${text}`);
  }, [path, forget]);

  const seen = useRef(query);
  useEffect(() => {
    if (query === seen.current) return;
    seen.current = query;
    // What comes back from the address is either an echo of what was written, or somebody went elsewhere.
    if (!written.current.has(query)) {
      forget();
      setView(viewFromQuery(new URLSearchParams(query)));
    }
    if (query === newest.current) written.current.clear();
  }, [query, forget]);
  useEffect(() => forget, [forget]);

  const show = useCallback(
    (next: LedgerView) => {
      setView(next);
      forget();
      pending.current = { text: queryFromView(next).toString(), timer: setTimeout(settle, REST_MS) };
    },
    [forget, settle],
  );
  return { view, show, settle, columns: params.get('columns') };
}
