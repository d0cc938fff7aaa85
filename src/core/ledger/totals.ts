import type { Charge } from '../funding';
import { isGone } from '../lifecycle';
import { type Amount, sumByCurrency } from '../money';
import { addDays, type Instant } from '../time';
import type { LedgerRow, Projection } from './projection';

/** The sums under a list of names, each by currency. */
export interface Totals {
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
  /** How many of the names are lost by that day: in deletion or free for anyone. They count in no sum but what was spent. */
  readonly lost: number;
}

/** A running total for each currency. */
function totals(): { add(amount: Amount): void; all(): Amount[] } {
  const byCurrency = new Map<string, number>();
  let last = '';
  let sum = 0;
  const keep = () => byCurrency.set(last, sum);
  return {
    add({ minor, currency }) {
      if (currency !== last) {
        keep();
        last = currency;
        sum = byCurrency.get(currency) ?? 0;
      }
      sum += minor;
    },
    all() {
      keep();
      byCurrency.delete('');
      return sumByCurrency([...byCurrency].map(([currency, minor]) => ({ currency, minor })));
    },
  };
}

/** Adds up rows as they stand on `day`: charges of the next 30 and 90 days are those expected to pass. */
export function totalsOf(projection: Projection, rows: readonly LedgerRow[], day: Instant): Totals {
  const [in30, in90] = [addDays(day, 30), addDays(day, 90)];
  const [perYear, charged30, charged90] = [totals(), totals(), totals()];
  const [spent, asking, renewal] = [totals(), totals(), totals()];
  let [unpriced, lost] = [0, 0];
  const countCosts = ({ asking: asked }: LedgerRow['name'], { perYear: yearly, renewal: once }: LedgerRow['costs']) => {
    if (yearly) perYear.add(yearly);
    else unpriced += 1;
    if (once) renewal.add(once);
    if (asked) asking.add(asked);
  };
  for (const { place, name, costs, phase } of rows) {
    if (name.spent.length > 0) for (const amount of name.spent) spent.add(amount);
    if (isGone(phase)) lost += 1;
    else countCosts(name, costs);
    const charges = projection.charges[place] as readonly Charge[];
    for (let i = 0; i < charges.length; i += 1) {
      const charge = charges[i] as Charge;
      if (charge.at > in90) break;
      if (charge.outcome === 'fail' || charge.cost === null) continue;
      if (charge.at <= day && day > projection.asOf) {
        spent.add(charge.cost);
        continue;
      }
      charged90.add(charge.cost);
      if (charge.at <= in30) charged30.add(charge.cost);
    }
  }
  return {
    names: rows.length,
    unpriced,
    lost,
    perYear: perYear.all(),
    charged30: charged30.all(),
    charged90: charged90.all(),
    spent: spent.all(),
    asking: asking.all(),
    renewal: renewal.all(),
  };
}
