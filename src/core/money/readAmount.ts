import { type Refusal, refuse } from '../refusal';
import {
  type Amount,
  amount,
  currencyDigits,
  formatDecimal,
  GREATEST_MINOR,
  isCurrency,
  roundHalfAway,
} from './amount';
import { currenciesOfSign, SIGN_PATTERN } from './currencySigns';
import { formatFigure } from './formatAmount';
import { type Marks, marksOf, NUMBER_STYLES, type NumberStyle } from './numberStyle';

/** What is known of an amount's currency besides what its text says. */
export interface AmountContext {
  /** The currency that a field or a column states: a text that states another contradicts it. */
  readonly stated?: string | null;
  /** The currency of a text that says none, where none is stated either. */
  readonly usual?: string;
  /** What “1.200” or “1,200” means. */
  readonly style: NumberStyle;
  /** Where a balance may be below nothing. */
  readonly negative?: boolean;
}

const MARKED = new RegExp(
  String.raw`^(?:(${SIGN_PATTERN}|[A-Za-z]{3}(?![A-Za-z]))\s*)?(?:(${SIGN_PATTERN})\s*)?([\d.,'’\s\u00a0\u202f]*\d[\d.,'’\s\u00a0\u202f]*?)\s*(?:(${SIGN_PATTERN})\s*)?([A-Za-z]{3})?$`,
  'u',
);

/**
 * Reads an amount as people write it: `11.38`, `1.200,50 €`, `$1,200`, `USD 11.38`, `CHF 1’200.50`. The one reader of typed and
 * listed money. What can be read in one way only is read so whatever the style; what could be two amounts follows the style; what
 * stays open even then is refused with both readings. A code outranks a sign, and two that contradict each other are refused.
 */
export function readAmount(text: string, context: AmountContext): Amount | Refusal {
  const written = text.trim();
  if (written === '') return refuse('money-empty', `Write an amount like ${exampleOf(context)}.`);
  const negative = /^[-−(]|-$/u.test(written);
  if (negative && !context.negative)
    return refuse('money-negative', `“${clip(written)}” is negative. Write what was paid or asked as a plain amount.`);
  const match = MARKED.exec(written.replace(/^[-−(]\s*|\s*[-)]$/gu, ''));
  if (!match) return notRead(written, context);
  const currency = currencyOf(match, context, written);
  if (typeof currency !== 'string') return currency;
  const minors = readingsOf(match[3] ?? '', currencyDigits(currency), context.style);
  const [minor, other] = minors;
  if (minor === undefined) return notRead(written, { ...context, stated: currency });
  if (other !== undefined) {
    const [less, more] = [amount(Math.min(minor, other), currency), amount(Math.max(minor, other), currency)];
    return refuse(
      'money-ambiguous',
      `“${clip(written)}” can be ${formatFigure(more, { style: context.style })} or ${formatFigure(less, { style: context.style })}. Write ${plainFigure(more, context.style)} or ${plainFigure(less, context.style)}.`,
    );
  }
  if (minor > GREATEST_MINOR)
    return refuse('money-too-much', `“${clip(written)}” is not an amount a name can cost. Check it.`);
  return amount(negative ? -minor || 0 : minor, currency);
}

/** The currency of an amount: what its code says, what is stated beside it, what its sign stands for, what is usual; in that order. */
function currencyOf(match: RegExpExecArray, { stated, usual }: AmountContext, written: string): string | Refusal {
  const marks = [match[1], match[2], match[4], match[5]].flatMap((mark) => mark ?? []);
  const signs = marks.filter((mark) => currenciesOfSign(mark) !== null);
  const codes = [...new Set(marks.filter((mark) => currenciesOfSign(mark) === null).map((mark) => mark.toUpperCase()))];
  const unknown = codes.find((code) => !isCurrency(code));
  if (unknown !== undefined)
    return refuse(
      'currency-unknown',
      `“${clip(written)}”: ${unknown} is no currency code. Write USD, EUR, GBP or another of ISO 4217.`,
    );
  const said = [...codes, ...(stated ? [stated] : [])];
  const code = said[0];
  const contradicts = (one: string, other: string) =>
    refuse('currency-contradicts', `“${clip(written)}” says ${one}, and ${other} is stated. Leave one of the two out.`);
  const otherCode = said.find((one) => one !== code);
  if (code !== undefined && otherCode !== undefined) return contradicts(code, otherCode);
  for (const sign of signs) {
    const meant = currenciesOfSign(sign) ?? [];
    if (code !== undefined && !meant.includes(code)) return contradicts(sign, code);
  }
  if (code !== undefined) return code;
  const [sign] = signs;
  if (sign === undefined) return usual ?? refuse('currency-missing', `“${clip(written)}” names no currency.`);
  const meant = currenciesOfSign(sign) ?? [];
  const all = signs.reduce<readonly string[]>(
    (some, one) => some.filter((each) => currenciesOfSign(one)?.includes(each)),
    meant,
  );
  if (all.length === 0) return contradicts(sign, signs[1] ?? '');
  return usual !== undefined && all.includes(usual) ? usual : (all[0] as string);
}

/** Reads a plain number, such as a factor or a rate: up to six digits behind the point, in the office's style. */
export function readNumber(text: string, style: NumberStyle): number | Refusal {
  const [value, other] = readingsOf(text, NUMBER_PLACES, style);
  return value === undefined || other !== undefined
    ? refuse(
        'number-not-read',
        `“${clip(text.trim())}” is not a number I can read. Write it like ${marksOf(style).point === ',' ? '1,085' : '1.085'}.`,
      )
    : value / 10 ** NUMBER_PLACES;
}

const NUMBER_PLACES = 6;

/** The amounts that some digits can mean, in minor units: one where the style or the digits themselves decide. */
function readingsOf(figure: string, places: number, style: NumberStyle): number[] {
  const digits = figure
    .replace(/[\s\u00a0\u202f]/gu, ' ')
    .replace(/'/g, '’')
    .trim();
  const own = readIn(digits, marksOf(style), places, false);
  if (own !== null) return [own];
  const found = new Set<number>();
  for (const other of NUMBER_STYLES)
    for (const loose of [false, true]) {
      const minor = readIn(digits, marksOf(other), places, loose);
      if (minor !== null) found.add(minor);
    }
  // A point or comma before three digits, against the style: thousands, or cents with a digit too many.
  if (places > 0 && found.size === 1 && /^[1-9]\d{0,2}[.,]\d{3}$/.test(digits))
    found.add(roundHalfAway(Number(digits.replace(',', '.')) * 10 ** places));
  return [...found];
}

/** Digits read in one style; `null` where they do not keep to it. `loose`: cents may be followed by noughts, like `9.990`. */
function readIn(digits: string, { group, point }: Marks, places: number, loose: boolean): number | null {
  const between = group === '\u00a0' ? ' ' : group;
  const [whole = '', cents = '', more] = digits.split(point);
  if (more !== undefined || (whole === '' && cents === '')) return null;
  const fraction = loose ? cents.replace(/0+$/, '') : cents;
  if (!/^\d*$/.test(fraction) || fraction.length > places || !/^\d*$/.test(cents)) return null;
  const groups = whole.split(between);
  // Thousands by three; in the style with commas also as they are counted in India: 12,34,567.
  const isGrouped =
    groups.length === 1
      ? /^\d*$/.test(whole)
      : /^[1-9]\d{0,2}$/.test(groups[0] ?? '') &&
        groups.at(-1)?.length === 3 &&
        groups
          .slice(1)
          .every((part) => /^\d+$/.test(part) && (part.length === 3 || (between === ',' && part.length === 2))) &&
        new Set(groups.slice(1, -1).map((part) => part.length)).size <= 1;
  if (!isGrouped) return null;
  const plain = groups.join('');
  if (plain.length > 15) return GREATEST_MINOR + 1;
  return Number(`${plain}${fraction.padEnd(places, '0')}`);
}

function notRead(written: string, context: AmountContext): Refusal {
  return refuse(
    'money-not-read',
    `“${clip(written)}” is not an amount I can read. Write it like ${exampleOf(context)}.`,
  );
}

function exampleOf({ stated, usual, style }: AmountContext): string {
  const currency = stated ?? usual ?? 'USD';
  return formatFigure(
    amount(
      currencyDigits(currency) === 0
        ? 1138
        : 11 * 10 ** currencyDigits(currency) + Math.round(0.38 * 10 ** currencyDigits(currency)),
      currency,
    ),
    { style },
  );
}

/** A figure without grouping, which reads in one way only. */
function plainFigure(a: Amount, style: NumberStyle): string {
  return formatDecimal(a)
    .replace('.', marksOf(style).point)
    .replace(/[.,]0+$/, '');
}

function clip(text: string): string {
  return text.length > 40 ? `${text.slice(0, 37)}…` : text;
}
