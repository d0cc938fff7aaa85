import { type Amount, currencyDigits, formatDecimal } from './amount';
import { marksOf, type NumberStyle, USUAL_STYLE } from './numberStyle';

const SIGNS: Readonly<Record<string, string>> = { USD: '$', EUR: '€', GBP: '£' };
const GROUPS = /\B(?=(\d{3})+(?!\d))/g;

/** How a figure is written. */
export interface FigureStyle {
  /** Whole amounts without their empty cents. */
  readonly whole?: boolean;
  readonly style?: NumberStyle;
}

/** `1,200` or `11.38`: grouped by thousands. */
export function formatFigure(a: Amount, { whole = false, style = USUAL_STYLE }: FigureStyle = {}): string {
  const [units = '', cents] = formatDecimal(a).split('.');
  const { group, point } = marksOf(style);
  const grouped = units.replace(GROUPS, group);
  return cents === undefined || (whole && Number(cents) === 0) ? grouped : `${grouped}${point}${cents}`;
}

/** `$11.38` in the home currency's sign where it has one, `NOK 120.00` otherwise. */
export function formatAmount(a: Amount, how: FigureStyle = {}): string {
  const sign = SIGNS[a.currency];
  const figure = formatFigure({ minor: Math.abs(a.minor), currency: a.currency }, how);
  return `${a.minor < 0 ? '−' : ''}${sign ?? `${a.currency} `}${figure}`;
}

/** `12.50 US dollars`: an amount in words, so that a typed one can be checked by reading. */
export function spellAmount(a: Amount, how: FigureStyle = {}): string {
  const unit = new Intl.NumberFormat('en', { style: 'currency', currency: a.currency, currencyDisplay: 'name' })
    .formatToParts(a.minor / 10 ** currencyDigits(a.currency))
    .find(({ type }) => type === 'currency');
  return `${a.minor < 0 ? 'minus ' : ''}${formatFigure({ ...a, minor: Math.abs(a.minor) }, how)} ${unit?.value ?? a.currency}`;
}

/** The step of one whole unit, in minor units. */
export function wholeUnit(currency: string): number {
  return 10 ** currencyDigits(currency);
}
