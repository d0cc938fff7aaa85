import { proxy } from 'comlink';
import { useEffect, useState } from 'react';
import type { Forecast, NamedStrategy } from '@/core/prospects';
import { useLedger } from '../frame/LedgerProvider';
import { type Prospects, strategiesOf } from './ProspectsContext';

/** So many paths are played first, and then: fewer of many names. */
export function pathsFor(names: number): readonly [quick: number, full: number] {
  return names > 100_000 ? [200, 1000] : names > 20_000 ? [400, 2000] : [1000, 5000];
}

interface Forecasting {
  /** The last that came; the one before while the next is being worked out. */
  readonly forecast: Forecast | null;
  /** How many paths of how many are done; `null` when nothing is being worked out. */
  readonly progress: { readonly done: number; readonly paths: number } | null;
  readonly problem: boolean;
  cancel(): void;
}

/** Works a forecast out beside the page, at first with few paths, then with all, whenever something it rests on moves. */
export function useForecast(
  prospects: Prospects,
  strategies: readonly NamedStrategy[] = strategiesOf(prospects),
): Forecasting {
  const { worker, meta } = useLedger();
  const [forecast, setForecast] = useState<Forecast | null>(null);
  const [progress, setProgress] = useState<Forecasting['progress']>(null);
  const [problem, setProblem] = useState(false);
  const { assumptions, view, years, seed } = prospects;
  const told = JSON.stringify(strategies);
  useEffect(() => {
    if (!worker || !meta) return;
    let stale = false;
    const play = async () => {
      for (const paths of pathsFor(meta.names)) {
        const wish = {
          assumptions,
          view,
          months: years * 12,
          seed,
          strategies: JSON.parse(told) as NamedStrategy[],
          paths,
        };
        setProgress({ done: 0, paths });
        const found = await worker.forecast(
          wish,
          proxy((done: number) => !stale && setProgress({ done, paths })),
        );
        if (stale || found === null) break;
        setForecast(found);
        if (found.fans.length === 0) break;
      }
      if (!stale) setProgress(null);
    };
    play().then(
      () => setProblem(false),
      (cause) => {
        console.error('the forecast could not be worked out', cause);
        if (!stale) setProblem(true);
      },
    );
    return () => {
      stale = true;
    };
  }, [worker, meta, assumptions, view, years, seed, told]);
  return {
    forecast,
    progress,
    problem,
    cancel: () => {
      void worker?.cancelForecast();
      setProgress(null);
    },
  };
}
