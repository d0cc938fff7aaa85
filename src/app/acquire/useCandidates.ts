import { useCallback, useEffect, useRef, useState } from 'react';
import type { AskingProgress } from '@/usecases/acquiring/ideas';
import type { CandidateTable } from '@/usecases/acquiring/table';
import { useLedgerChange } from '../frame/LedgerProvider';

const LOOK_AGAIN_MS = 700;

/** The table of a set of ideas, asked for further as long as names wait and the window is open. */
export function useCandidates(setId: number | null) {
  const [table, setTable] = useState<CandidateTable | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [progress, setProgress] = useState<AskingProgress | null>(null);
  const [isPaused, setPaused] = useState(false);
  const stopped = useRef(false);

  const load = useCallback(async () => {
    if (setId === null) return;
    try {
      const response = await fetch(`/acquire/data?set=${setId}`);
      const read = (await response.json()) as CandidateTable & { detail?: string };
      if (!response.ok) return setProblem(read.detail ?? 'The candidates could not be read.');
      setTable(read);
      setProgress(read.progress);
      setPaused(read.set.paused);
      setProblem(null);
    } catch (cause) {
      console.warn('the candidates could not be read', cause);
      setProblem('The candidates could not be read. Is the program still running?');
    }
  }, [setId]);
  useEffect(() => void load(), [load]);
  useLedgerChange(load);

  const waits = progress !== null && progress.waiting + progress.records > 0 && !isPaused;
  useEffect(() => {
    if (!waits || setId === null) return;
    stopped.current = false;
    const goOn = async () => {
      while (!stopped.current) {
        try {
          const response = await fetch(`/acquire/ask?set=${setId}`, { method: 'POST' });
          const answer = (await response.json()) as { settled: number | null; progress: AskingProgress };
          if (stopped.current || !response.ok) return;
          if (answer.settled !== 0) await load();
          else setProgress(answer.progress);
          if (answer.progress.waiting + answer.progress.records === 0) return;
          // Nothing could be asked just now: another process is at it, or a server wants to be left alone.
          if (!answer.settled) await new Promise((resolve) => setTimeout(resolve, LOOK_AGAIN_MS));
        } catch (cause) {
          console.warn('the asking has stopped', cause);
          return;
        }
      }
    };
    void goOn();
    return () => {
      stopped.current = true;
    };
  }, [waits, setId, load]);
  return { table, problem, progress, isPaused, load };
}
