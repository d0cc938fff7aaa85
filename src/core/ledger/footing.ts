import { type Amount, sumByCurrency } from '../money';
import { addDays, type Instant } from '../time';
import type { LedgerRow, Projection } from './projection';

/** The sums under a list of names, each by currency. */
export interface Footing {
  readonly names: number;
  readonly perYear: readonly Amount[];
  readonly charged30: readonly Amount[];
  readonly charged90: readonly Amount[];
  readonly spent: readonly Amount[];
  readonly asking: readonly Amount[];
  /** What renewing each for its least term would cost. */
  readonly renewal: readonly Amount[];
  /** How many of the names have no known price, and so are missing from the costs. */
  readonly unpriced: number;
}

/** Adds up rows as they stand on `day`: charges of the next 30 and 90 days are those expected to pass. */
export function footingOf(projection: Projection, rows: readonly LedgerRow[], day: Instant): Footing {
  const [in30, in90] = [addDays(day, 30), addDays(day, 90)];
  const sums = {
    perYear: [] as Amount[],
    charged30: [] as Amount[],
    charged90: [] as Amount[],
    spent: [] as Amount[],
    asking: [] as Amount[],
    renewal: [] as Amount[],
  };
  let unpriced = 0;
  for (const { place, name, costs } of rows) {
    if (costs.perYear) sums.perYear.push(costs.perYear);
    else unpriced += 1;
    if (costs.renewal) sums.renewal.push(costs.renewal);
    if (name.asking) sums.asking.push(name.asking);
    for (const amount of name.spent) sums.spent.push(amount);
    for (const charge of projection.charges[place] ?? []) {
      if (charge.outcome === 'fail' || charge.cost === null || charge.at > in90) continue;
      if (charge.at <= day && day > projection.asOf) {
        sums.spent.push(charge.cost);
        continue;
      }
      sums.charged90.push(charge.cost);
      if (charge.at <= in30) sums.charged30.push(charge.cost);
    }
  }
  return {
    names: rows.length,
    unpriced,
    perYear: sumByCurrency(sums.perYear),
    charged30: sumByCurrency(sums.charged30),
    charged90: sumByCurrency(sums.charged90),
    spent: sumByCurrency(sums.spent),
    asking: sumByCurrency(sums.asking),
    renewal: sumByCurrency(sums.renewal),
  };
}
