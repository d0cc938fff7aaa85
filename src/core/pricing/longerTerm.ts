/** Buying several years today, or renewing year by year at prices that rise. */
export interface LongerTerm {
  /** Price of all the years today, minor units. */
  readonly nowMinor: number;
  /** Price of one year today, minor units. */
  readonly yearMinor: number;
  readonly years: number;
  /** Assumed rise of the yearly price, as a share: 0.05 is five percent. */
  readonly rise: number;
  /** What money earns elsewhere in a year, as a share. */
  readonly discount: number;
}

/**
 * What the yearly renewals are worth today: one now, and one at the end of each year but the last, each `rise` dearer than
 * the one before. Minor units, not rounded.
 */
export function yearlyWorthToday({ yearMinor, years, rise, discount }: Omit<LongerTerm, 'nowMinor'>): number {
  let worth = 0;
  for (let year = 0; year < years; year += 1) worth += yearMinor * ((1 + rise) / (1 + discount)) ** year;
  return worth;
}

/** What buying all years today saves against renewing yearly, minor units of today; negative when it costs more. */
export function savedByLongerTerm(term: LongerTerm): number {
  return yearlyWorthToday(term) - term.nowMinor;
}

const MOST_RISE = 10;

/**
 * The yearly rise at which both come to the same, as a share; a higher one makes the longer term cheaper. `null` when no
 * rise between -100 % and 1000 % does, or when there is only one year.
 */
export function breakEvenRise({ nowMinor, yearMinor, years, discount }: Omit<LongerTerm, 'rise'>): number | null {
  if (years < 2 || yearMinor <= 0) return null;
  const at = (rise: number) => yearlyWorthToday({ yearMinor, years, rise, discount }) - nowMinor;
  let [low, high] = [-1, MOST_RISE];
  if (at(low) > 0 || at(high) < 0) return null;
  // Worth rises with the rise, so halving finds the one place where both are equal.
  for (let i = 0; i < 80; i += 1) {
    const middle = (low + high) / 2;
    if (at(middle) < 0) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
