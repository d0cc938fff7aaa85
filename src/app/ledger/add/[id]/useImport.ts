'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import { isRefusal, type Refusal } from '@/core/refusal';
import { report } from '@/ui/overlay/Toasts';
import type { ImportSummary } from '@/usecases/imports/preview';
import type { ImportOptions } from '@/usecases/imports/readImport';
import { useAct } from '../../../acts/useAct';
import { useBusy } from '../../../acts/useBusy';
import { useLedger } from '../../../frame/LedgerProvider';
import { importSummaryAction, readImportAction, writeImportAction } from '../actions';
import { lookedAt } from './lookedAt';

const LOOK_AGAIN_MS = 400;

/** What a person decides about a list; what was found in it the program knows. */
function askedOf({ mapping, accountId, fullList, allowPrivateEndings, accountLabel, sheet }: ImportOptions) {
  return { mapping, accountId, fullList, allowPrivateEndings, accountLabel, ...(sheet ? { sheet } : {}) };
}

/** An import as it stands, looked at again while it goes on, and what is done with it. */
export function useImport(first: ImportSummary) {
  const { reload } = useLedger();
  const { undo } = useAct();
  const [summary, setSummary] = useState(first);
  const [question, setQuestion] = useState<string | null>(null);
  const [busy, during] = useBusy();
  const [isBegun, setBegun] = useState(false);
  const begun = useRef(false);
  /** How often somebody waits for it to be read. */
  const asked = useRef(0);
  const { row } = summary;
  const { id } = row;

  const took = useCallback((answer: ImportSummary | Refusal) => {
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else setSummary(answer);
  }, []);

  const read = useCallback(
    async (options: ImportOptions) => {
      setQuestion(null);
      setSummary((now) => ({ ...now, row: { ...now.row, options, status: 'reading' } }));
      asked.current += 1;
      const answer = await readImportAction(id, askedOf(options)).finally(() => {
        asked.current -= 1;
      });
      if (isRefusal(answer)) {
        setQuestion(answer.message);
        setSummary((now) => ({ ...now, row: { ...now.row, options, status: 'asking' } }));
      } else setSummary(answer);
    },
    [id],
  );

  // The page may come from the browser's memory, so the import is looked at anew; a new one is read as proposed at once.
  useEffect(() => {
    if (begun.current) return;
    begun.current = true;
    const begin = async () => {
      try {
        const answer = await importSummaryAction(id);
        if (isRefusal(answer)) return;
        setSummary(answer);
        if (answer.row.status === 'asking') void read(answer.row.options);
      } finally {
        setBegun(true);
      }
    };
    void begin();
  }, [id, read]);

  const goesOn = row.status === 'reading' || row.status === 'writing';
  useEffect(() => {
    if (!goesOn) return;
    const look = async () => {
      const seen = await importSummaryAction(id);
      const isAsked = asked.current > 0;
      if (!isRefusal(seen)) setSummary((now) => lookedAt(now, seen, isAsked));
    };
    const timer = setInterval(() => void look(), LOOK_AGAIN_MS);
    return () => clearInterval(timer);
  }, [id, goesOn]);

  const write = async () => {
    const answer = await during(writeImportAction(id));
    if (isRefusal(answer)) {
      report({ text: answer.message, problem: true });
      return;
    }
    await reload();
    took(await importSummaryAction(id));
  };
  const takeBack = async (batchId: number) => {
    if (!(await undo(batchId))) return;
    took(await importSummaryAction(id));
  };
  // It waits to be read, and nobody has heard of that, or the asking was lost on its way.
  const isUnread = isBegun && row.status === 'asking' && question === null;
  return { summary, question, isUnread, busy, took, read, write, takeBack };
}
