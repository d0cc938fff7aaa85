import { type Amount, currencyDigits, formatDecimal } from './amount';

const SIGNS: Readonly<Record<string, string>> = { USD: '$', EUR: '€', GBP: '£' };
const GROUPS = /\B(?=(\d{3})+(?!\d))/g;

/** `1,200` or `11.38`: grouped by thousands; whole amounts without their empty cents when `whole` is set. */
export function formatFigure(a: Amount, whole = false): string {
  const [units = '', cents] = formatDecimal(a).split('.');
  const grouped = units.replace(GROUPS, ',');
  return cents === undefined || (whole && Number(cents) === 0) ? grouped : `${grouped}.${cents}`;
}

/** `$11.38` in the home currency's sign where it has one, `NOK 120.00` otherwise. */
export function formatAmount(a: Amount, whole = false): string {
  const sign = SIGNS[a.currency];
  const figure = formatFigure({ minor: Math.abs(a.minor), currency: a.currency }, whole);
  return `${a.minor < 0 ? '−' : ''}${sign ?? `${a.currency} `}${figure}`;
}

/** The step of one whole unit, in minor units. */
export function wholeUnit(currency: string): number {
  return 10 ** currencyDigits(currency);
}
