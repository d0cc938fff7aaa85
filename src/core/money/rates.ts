import type { Day } from '../time';
import { type Amount, amount, currencyDigits, roundHalfAway } from './amount';

/** What one unit of a currency was worth in another from a day on. */
export interface Rate {
  readonly from: Day;
  readonly currency: string;
  readonly into: string;
  /** Units of `into` for one unit of `currency`. */
  readonly factor: number;
}

/** What one minor unit of a currency is in minor units of another, by the rate in force on a day or its inverse; `null` where none is known. */
export function minorFactor(from: string, into: string, rates: readonly Rate[], day: Day): number | null {
  if (from === into) return 1;
  const inForce = (one: string, other: string) =>
    rates
      .filter((rate) => rate.currency === one && rate.into === other && rate.from <= day)
      .reduce<Rate | null>((latest, rate) => (latest === null || rate.from > latest.from ? rate : latest), null);
  const direct = inForce(from, into);
  const inverse = inForce(into, from);
  const useDirect = direct !== null && (inverse === null || direct.from >= inverse.from);
  const factor = useDirect ? direct.factor : inverse ? 1 / inverse.factor : null;
  return factor === null ? null : factor * 10 ** (currencyDigits(into) - currencyDigits(from));
}

/** An amount in another currency by the rate in force on a day, or by its inverse, rounded once; `null` where none is known. */
export function convert(money: Amount, into: string, rates: readonly Rate[], day: Day): Amount | null {
  if (money.currency === into) return money;
  const factor = minorFactor(money.currency, into, rates, day);
  return factor === null ? null : amount(roundHalfAway(money.minor * factor), into);
}

/** The sum of amounts in one currency; `null` when one of them has no rate. */
export function sumIn(money: readonly Amount[], into: string, rates: readonly Rate[], day: Day): Amount | null {
  let sum = 0;
  for (const one of money) {
    const converted = convert(one, into, rates, day);
    if (converted === null) return null;
    sum += converted.minor;
  }
  return amount(sum, into);
}
