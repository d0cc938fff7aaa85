'use client';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { COLUMN_IDS, type ColumnId, isColumn, USUAL_COLUMNS } from './ledgerColumns';

export interface Columns {
  readonly shown: readonly ColumnId[];
  readonly widths: Readonly<Record<string, number>>;
  readonly setWidth: (id: string, width: number) => void;
  readonly setShown: (ids: readonly string[]) => void;
}

const KEPT_AS = 'ledger columns';

/** Which columns are shown and how wide, remembered in this browser. `fromUrl` is a saved view's own list. */
export function useColumns(fromUrl: string | null): Columns {
  const [shown, setShownState] = useState<readonly ColumnId[]>(USUAL_COLUMNS);
  const [widths, setWidths] = useState<Readonly<Record<string, number>>>({});

  useEffect(() => {
    try {
      const kept = JSON.parse(localStorage.getItem(KEPT_AS) ?? '{}') as {
        shown?: string[];
        widths?: Record<string, number>;
      };
      const ids = (fromUrl?.split(',') ?? kept.shown ?? []).filter(isColumn);
      if (ids.length > 0) setShownState(ids);
      if (kept.widths) setWidths(kept.widths);
    } catch {
      localStorage.removeItem(KEPT_AS);
    }
  }, [fromUrl]);

  const keep = useCallback(
    (next: { shown: readonly string[]; widths: Readonly<Record<string, number>> }) =>
      localStorage.setItem(KEPT_AS, JSON.stringify(next)),
    [],
  );
  const setWidth = useCallback(
    (id: string, width: number) => {
      const next = { ...widths, [id]: width };
      setWidths(next);
      keep({ shown, widths: next });
    },
    [widths, shown, keep],
  );
  const setShown = useCallback(
    (ids: readonly string[]) => {
      const next = COLUMN_IDS.filter((id) => id === 'name' || ids.includes(id));
      setShownState(next);
      keep({ shown: next, widths });
    },
    [widths, keep],
  );
  return useMemo(() => ({ shown, widths, setWidth, setShown }), [shown, widths, setWidth, setShown]);
}
