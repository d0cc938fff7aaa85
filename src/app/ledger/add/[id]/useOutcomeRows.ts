'use client';
import { useCallback, useEffect, useState } from 'react';
import { isRefusal, type Refusal } from '@/core/refusal';
import type { ImportSummary, PreviewRow, RowOutcome } from '@/usecases/imports/preview';
import { chooseRowsAction, importRowsAction } from '../actions';

interface Outcome {
  readonly id: string;
  readonly outcome: RowOutcome;
  readonly count: { readonly rows: number };
  readonly onSummary: (answer: ImportSummary | Refusal) => void;
}

/** Rows of a list that came out one way, fetched a hundred at a time once they are `shown`, and which of them are taken. */
export function useOutcomeRows({ id, outcome, count, onSummary }: Outcome, shown: boolean) {
  const [rows, setRows] = useState<readonly PreviewRow[]>([]);
  const [hasFailed, setFailed] = useState(false);

  const more = useCallback(
    async (from: number) => {
      setFailed(false);
      try {
        const next = await importRowsAction(id, outcome, from);
        setRows((now) => [...now.slice(0, from), ...next]);
        // They were counted: where none comes they have gone meanwhile.
        setFailed(next.length === 0);
      } catch {
        // The server's log has the cause, where it was asked at all.
        setFailed(true);
      }
    },
    [id, outcome],
  );

  useEffect(() => {
    if (shown && count.rows > 0) void more(0);
  }, [shown, count.rows, more]);

  const choose = async (names: readonly string[] | null, taken: boolean) => {
    const touched = rows.filter(({ ascii }) => names === null || names.includes(ascii ?? ''));
    const before = new Map(touched.map((row) => [row.ascii, row.taken]));
    const show = (chosen: ReadonlyMap<string | null, boolean>) =>
      setRows((now) => now.map((row) => ({ ...row, taken: chosen.get(row.ascii) ?? row.taken })));
    show(new Map(touched.map(({ ascii }) => [ascii, taken])));
    let isChosen = false;
    try {
      const answer = await chooseRowsAction(id, outcome, names, taken);
      isChosen = !isRefusal(answer);
      onSummary(answer);
    } finally {
      // Nothing is shown as chosen of which nobody said that it is.
      if (!isChosen) show(before);
    }
  };

  return { rows, hasFailed, more, choose };
}
