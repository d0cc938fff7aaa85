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
  // It waits to be read, and nobody has asked for that, or the asking was lost on its way.
  const [isUnread, setUnread] = useState(false);
  const begun = useRef(false);
  const isAsking = useRef(false);
  const { row } = summary;
  const { id } = row;

  const took = useCallback((answer: ImportSummary | Refusal) => {
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else setSummary(answer);
  }, []);

  const read = useCallback(
    async (options: ImportOptions) => {
      setQuestion(null);
      setUnread(false);
      setSummary((now) => ({ ...now, row: { ...now.row, options, status: 'reading' } }));
      isAsking.current = true;
      const answer = await readImportAction(id, askedOf(options)).finally(() => {
        isAsking.current = false;
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
    importSummaryAction(id).then(
      (answer) => {
        if (isRefusal(answer)) return;
        setSummary(answer);
        if (answer.row.status === 'asking') void read(answer.row.options);
      },
      () => setUnread(true),
    );
  }, [id, read]);

  useLookedAt(id, row.status === 'reading' || row.status === 'writing', (answer) => {
    const { status, rowsDone } = answer.row;
    if (status === row.status) setSummary((now) => ({ ...now, row: { ...now.row, rowsDone } }));
    else if (status !== 'asking') setSummary(answer);
    // What is on its way to be read still waits for it there. What was said of how is kept where it was lost.
    else if (!isAsking.current) {
      setSummary((now) => ({ ...now, row: { ...now.row, status } }));
      setUnread(true);
    }
  });

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
  return { summary, question, isUnread, busy, took, read, write, takeBack };
}

/** Looks at an import again and again while it goes on, and hands on what there is to see. */
function useLookedAt(id: string, goesOn: boolean, see: (answer: ImportSummary) => void) {
  const latest = useRef(see);
  useEffect(() => {
    latest.current = see;
  });
  useEffect(() => {
    if (!goesOn) return;
    const look = async () => {
      const answer = await importSummaryAction(id);
      if (!isRefusal(answer)) latest.current(answer);
    };
    const timer = setInterval(() => void look(), LOOK_AGAIN_MS);
    return () => clearInterval(timer);
  }, [id, goesOn]);
}
