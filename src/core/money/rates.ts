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

/** An amount in another currency by the rate in force on a day, or by its inverse; `null` where none is known. */
export function convert(money: Amount, into: string, rates: readonly Rate[], day: Day): Amount | null {
  if (money.currency === into) return money;
  const inForce = (from: string, to: string) =>
    rates
      .filter((rate) => rate.currency === from && rate.into === to && rate.from <= day)
      .reduce<Rate | null>((latest, rate) => (latest === null || rate.from > latest.from ? rate : latest), null);
  const direct = inForce(money.currency, into);
  const inverse = inForce(into, money.currency);
  const useDirect = direct !== null && (inverse === null || direct.from >= inverse.from);
  const factor = useDirect ? direct.factor : inverse ? 1 / inverse.factor : null;
  if (factor === null) return null;
  const scale = 10 ** (currencyDigits(into) - currencyDigits(money.currency));
  return amount(roundHalfAway(money.minor * factor * scale), into);
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
