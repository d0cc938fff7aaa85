/** An amount of money: whole minor units (cents, pence, yen) of one currency, never a fraction. */
export interface Amount {
  readonly minor: number;
  readonly currency: string;
}

/** The greatest amount the ledger accepts, in minor units: far above any price of a name, far below 2^53. */
export const GREATEST_MINOR = 1_000_000_000_000;

const digitsByCurrency = new Map<string, number>();
const KNOWN = new Set(Intl.supportedValuesOf('currency'));

/** True for an ISO 4217 code in capitals. */
export function isCurrency(code: string): boolean {
  return KNOWN.has(code);
}

/** How many digits stand behind the point (ISO 4217): 2 for most, 0 for JPY. */
export function currencyDigits(currency: string): number {
  let digits = digitsByCurrency.get(currency);
  if (digits === undefined) {
    digits = new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ?? 2;
    digitsByCurrency.set(currency, digits);
  }
  return digits;
}

export function amount(minor: number, currency: string): Amount {
  if (!Number.isSafeInteger(minor)) throw new Error(`not whole minor units: ${minor}`);
  return { minor, currency };
}

/** The sum of two amounts. Throws on two currencies: they never mix without a dated rate. */
export function plus(a: Amount, b: Amount): Amount {
  if (a.currency !== b.currency) throw new Error(`${a.currency} and ${b.currency} do not add`);
  return amount(a.minor + b.minor, a.currency);
}

/** `factor` times, rounded half away from zero. */
export function times(a: Amount, factor: number): Amount {
  return amount(roundHalfAway(a.minor * factor), a.currency);
}

const MILLION = 1_000_000;

/** A share of so many minor units, not rounded. The share is meant in millionths: 0.07 of 100 is 7, not a hair more. */
export function shareOf(minor: number, share: number): number {
  return (minor * Math.round(share * MILLION)) / MILLION;
}

/** Rounds half away from zero, after taking off the noise of binary fractions (1.005 × 100 is meant as 100.5). */
export function roundHalfAway(value: number): number {
  const magnitude = Math.abs(value);
  const rounded = Math.floor(magnitude + 0.5 + magnitude * 2 ** -50);
  return value < 0 ? -rounded || 0 : rounded;
}

/** Totals by currency, in the order of the codes. */
export function sumByCurrency(amounts: Iterable<Amount>): Amount[] {
  const totals = new Map<string, number>();
  for (const { minor, currency } of amounts) totals.set(currency, (totals.get(currency) ?? 0) + minor);
  return [...totals].sort(([a], [b]) => (a < b ? -1 : 1)).map(([currency, minor]) => amount(minor, currency));
}

/** The plain decimal of an amount, `11.38`, without sign of currency. */
export function formatDecimal(a: Amount): string {
  const digits = currencyDigits(a.currency);
  const sign = a.minor < 0 ? '-' : '';
  const text = String(Math.abs(a.minor)).padStart(digits + 1, '0');
  return digits === 0 ? sign + text : `${sign}${text.slice(0, -digits)}.${text.slice(-digits)}`;
}

/** Reads `11.38` (point, no grouping) in a currency. `null` when it is none, has too many digits, or is too great. */
export function parseDecimal(text: string, currency: string): Amount | null {
  const match = /^(-?)(\d{1,15})(?:\.(\d+))?$/.exec(text.trim());
  if (!match || !isCurrency(currency)) return null;
  const digits = currencyDigits(currency);
  const fraction = (match[3] ?? '').replace(/0+$/, '');
  if (fraction.length > digits) return null;
  const minor = Number(`${match[2]}${fraction.padEnd(digits, '0')}`);
  return minor > GREATEST_MINOR ? null : amount(match[1] === '-' ? -minor || 0 : minor, currency);
}
