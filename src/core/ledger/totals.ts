import { GONE_PHASES } from '../lifecycle';
import { type Amount, sumByCurrency } from '../money';
import type { Places } from '../table';
import { addDays } from '../time';
import { type LedgerDay, phaseCode } from './ledgerDay';

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
class Sums {
  readonly #byCurrency = new Map<string, number>();
  #last = '';
  #sum = 0;

  add(minor: number, currency: string): void {
    if (currency !== this.#last) {
      this.#keep();
      this.#last = currency;
      this.#sum = this.#byCurrency.get(currency) ?? 0;
    }
    this.#sum += minor;
  }

  #keep(): void {
    if (this.#last !== '') this.#byCurrency.set(this.#last, this.#sum);
  }

  all(): Amount[] {
    this.#keep();
    return sumByCurrency([...this.#byCurrency].map(([currency, minor]) => ({ currency, minor })));
  }
}

/** Adds up the names at some places as they stand on a day: charges of the next 30 and 90 days are those expected to pass. */
export function totalsOf(ledger: LedgerDay, places: Places): Totals {
  const { projection, day } = ledger;
  const { names, charges, asOf } = projection;
  const { asking: asked, askingCurrency, currencies, spent: spentLines } = names.columns;
  const [in30, in90] = [addDays(day, 30), addDays(day, 90)];
  const [perYear, charged30, charged90] = [new Sums(), new Sums(), new Sums()];
  const [spent, asking, renewal] = [new Sums(), new Sums(), new Sums()];
  let [unpriced, lost] = [0, 0];
  const gone = GONE_PHASES.map(phaseCode);
  for (let n = 0; n < places.length; n += 1) {
    const place = places[n] as number;
    const [from, to] = names.spentLines(place);
    for (let i = from; i < to; i += 1)
      spent.add(spentLines.minor[i] as number, currencies[spentLines.currency[i] as number] as string);
    if (gone.includes(ledger.phase[place] as number)) lost += 1;
    else {
      const costs = ledger.costs(place);
      if (costs.perYear) perYear.add(costs.perYear.minor, costs.perYear.currency);
      else unpriced += 1;
      if (costs.renewal) renewal.add(costs.renewal.minor, costs.renewal.currency);
      const minor = asked[place] as number;
      if (!Number.isNaN(minor)) asking.add(minor, currencies[askingCurrency[place] as number] as string);
    }
    for (let i = charges.first(place); i >= 0; i = charges.next(i)) {
      const at = charges.at(i);
      if (at > in90) break;
      const minor = charges.costMinor(i);
      if (!charges.passes(i) || Number.isNaN(minor)) continue;
      if (at <= day && day > asOf) {
        spent.add(minor, charges.currency(i));
        continue;
      }
      charged90.add(minor, charges.currency(i));
      if (at <= in30) charged30.add(minor, charges.currency(i));
    }
  }
  return {
    names: places.length,
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

/** So many names are added up at a time where something else may be waiting. */
const NAMES_A_STEP = 25_000;

/**
 * The same, a part of the names at a time: whoever adds up a long ledger lets go in between, and stops when nobody wants the sums any
 * more. Yields what has been added up so far; the last is the whole.
 */
export function* totalsInSteps(ledger: LedgerDay, places: Places): Generator<Totals, void> {
  let sums = totalsOf(ledger, places.subarray(0, NAMES_A_STEP));
  yield sums;
  for (let from = NAMES_A_STEP; from < places.length; from += NAMES_A_STEP) {
    sums = joined(sums, totalsOf(ledger, places.subarray(from, from + NAMES_A_STEP)));
    yield sums;
  }
}

/** The sums under two lists of different names. */
function joined(a: Totals, b: Totals): Totals {
  const sum = (key: 'perYear' | 'charged30' | 'charged90' | 'spent' | 'asking' | 'renewal') =>
    sumByCurrency([...a[key], ...b[key]]);
  return {
    names: a.names + b.names,
    unpriced: a.unpriced + b.unpriced,
    lost: a.lost + b.lost,
    perYear: sum('perYear'),
    charged30: sum('charged30'),
    charged90: sum('charged90'),
    spent: sum('spent'),
    asking: sum('asking'),
    renewal: sum('renewal'),
  };
}
