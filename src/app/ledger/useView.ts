'use client';
import { usePathname, useSearchParams } from 'next/navigation';
import { useCallback, useEffect, useRef, useState } from 'react';
import { type LedgerView, queryFromView, viewFromQuery } from '@/core/ledger';

/**
 * The view of the ledger, kept in the address so that it can be bookmarked. It lives here first and is written to the address
 * after: the router follows in its own time, and typing must not wait for it.
 */
export function useView(): { view: LedgerView; show: (view: LedgerView) => void; columns: string | null } {
  const path = usePathname();
  const params = useSearchParams();
  const query = params.toString();
  const [view, setView] = useState(() => viewFromQuery(new URLSearchParams(query)));
  const written = useRef(new Set<string>());
  const newest = useRef(query);

  useEffect(() => {
    // What comes back from the address is either an echo of what was written, or somebody went elsewhere.
    if (!written.current.has(query)) setView(viewFromQuery(new URLSearchParams(query)));
    if (query === newest.current) written.current.clear();
  }, [query]);

  const show = useCallback(
    (next: LedgerView) => {
      const text = queryFromView(next).toString();
      setView(next);
      if (text === new URLSearchParams(window.location.search).toString()) return;
      written.current.add(text);
      newest.current = text;
      window.history.replaceState(null, '', text === '' ? path : `${path}?${text}`);
    },
    [path],
  );
  return { view, show, columns: params.get('columns') };
}
