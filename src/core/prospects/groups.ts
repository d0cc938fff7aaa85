import { currencyDigits } from '../money';
import type { Assumptions } from '../odds';

/** From which asking price on a name is in the next band, in whole units of the home currency. */
const BAND_EDGES = [500, 2000, 10_000] as const;

/** What a name is put into a group by. */
export interface Grouped {
  readonly ending: string;
  readonly tags: readonly string[];
  /** Minor units of the home currency; `null` where none is known. */
  readonly askingMinor: number | null;
  readonly isInView: boolean;
}

/**
 * The group that a name shares its chance of sale with, by its key: an ending without its dot, the first of its tags ('' for none), the
 * number of its band of asking prices from 0, or whether it is in the view (`yes`, `no`).
 */
export function groupOf(grouping: Assumptions['grouping'], name: Grouped, homeCurrency: string): string {
  switch (grouping) {
    case 'ending':
      return name.ending;
    case 'tag':
      return [...name.tags].sort()[0] ?? '';
    case 'asking': {
      const units = (name.askingMinor ?? 0) / 10 ** currencyDigits(homeCurrency);
      return String(BAND_EDGES.filter((edge) => units >= edge).length);
    }
    case 'view':
      return name.isInView ? 'yes' : 'no';
  }
}

/** The band of asking prices with this number, in whole units: from the first on, below the second; `null` for no bound. */
export function bandOf(key: string): readonly [number | null, number | null] {
  const band = Number(key);
  return [BAND_EDGES[band - 1] ?? null, BAND_EDGES[band] ?? null];
}
