import {
  type Amount,
  formatAmount as formatAmountIn,
  formatDecimal,
  formatFigure as formatFigureIn,
  isCurrency,
  type NumberStyle,
  readAmount,
  readNumber,
  spellAmount as spellAmountIn,
  USUAL_STYLE,
} from '@/core/money';
import { type Refusal, refuse } from '@/core/refusal';

/** The office's number style: one for the whole interface, set by the frame before anything is drawn. */
let shown: NumberStyle = USUAL_STYLE;

export function showFiguresIn(style: NumberStyle): void {
  shown = style;
}

/** The style in which the interface writes and reads figures. */
export function numberStyle(): NumberStyle {
  return shown;
}

/** `$11.38` or `NOK 120.00`, in the office's style; `whole` leaves empty cents out. */
export function formatAmount(a: Amount, whole = false): string {
  return formatAmountIn(a, { whole, style: shown });
}

/** The figure alone, in the office's style. */
export function formatFigure(a: Amount, whole = false): string {
  return formatFigureIn(a, { whole, style: shown });
}

/** `12.50 US dollars`, in the office's style. */
export function spellAmount(a: Amount): string {
  return spellAmountIn(a, { style: shown });
}

/** An amount as a person would type it: no grouping, no empty cents. */
export function typedAmount(a: Amount): string {
  const point = formatFigureIn({ minor: 1, currency: 'USD' }, { style: shown }).charAt(1);
  return formatDecimal(a).replace(/\.0+$/, '').replace('.', point);
}

/** Reads what was typed where amounts of `currency` belong, in the office's style. */
export function readTyped(text: string, currency: string, negative = false): Amount | Refusal {
  if (!isCurrency(currency)) return refuse('currency-unknown', 'Write the currency first, as a code like USD.');
  return readAmount(text, { stated: currency, style: shown, negative });
}

/** Reads a typed factor or rate, in the office's style. */
export function typedNumber(text: string): number | Refusal {
  return readNumber(text, shown);
}

/** A number as a person would type it. */
export function numberText(value: number): string {
  return shown === '1.234,50' || shown === '1 234,50' ? String(value).replace('.', ',') : String(value);
}

/** Minor units of what was typed; `null` for nothing, `NaN` for what is no amount. */
export function typedMinor(text: string, currency: string): number | null {
  if (text.trim() === '') return null;
  const read = readTyped(text, currency);
  return 'minor' in read ? read.minor : Number.NaN;
}
