import { type Amount, currencyDigits, isCurrency, parseDecimal } from '@/core/money';
import { type Refusal, refuse } from '@/core/refusal';

const SIGNS: Readonly<Record<string, string>> = { $: 'USD', '€': 'EUR', '£': 'GBP', '¥': 'JPY' };
const MONEY = /^(?:([$€£¥]|[A-Za-z]{3})\s*)?([\d.,'’\s]+?)\s*([$€£¥]|[A-Za-z]{3})?$/u;

/**
 * Reads one amount: `11.38`, `$1,200`, `1.200,50 €`, `USD 11.38`. A sign or code in the cell decides the currency, else
 * `currency`. Refused: negative amounts, more digits than the currency has, `1.200` (which could be two amounts), too much.
 */
export function readMoneyCell(cell: string, currency: string): Amount | Refusal {
  const text = cell.trim();
  if (/^[(-]|-$/.test(text))
    return refuse('money-negative', `“${clip(text)}” is negative. Write what was paid or asked as a plain amount.`);
  const match = MONEY.exec(text);
  const marked = match?.[1] ?? match?.[3];
  const code = marked === undefined ? currency : (SIGNS[marked] ?? marked.toUpperCase());
  if (!match || !isCurrency(code))
    return refuse('money-not-read', `“${clip(text)}” is not an amount I can read. Write it like 11.38 or 11.38 USD.`);
  const plain = plainDecimal((match[2] ?? '').replace(/[\s'’\u00a0]/gu, ''), currencyDigits(code));
  if (plain === null)
    return refuse('money-ambiguous', `“${clip(text)}” can be read as two amounts. Write it like 1200 or 1.20.`);
  const read = parseDecimal(plain, code);
  if (read === null) return refuse('money-too-much', `“${clip(text)}” is not an amount a name can cost. Check it.`);
  return read;
}

/** The digits with a point before the cents, or `null` when a separator could be either kind. */
function plainDecimal(digits: string, places: number): string | null {
  const last = Math.max(digits.lastIndexOf('.'), digits.lastIndexOf(','));
  if (last < 0) return digits;
  const [front, behind] = [digits.slice(0, last), digits.slice(last + 1)];
  const plain = digits.replace(/[.,]/g, '');
  if (/^\d{1,3}(\.\d{3}){2,}$/.test(digits) || /^\d{1,3}(,\d{3})+$/.test(digits)) return plain;
  if (behind.length > places) return null;
  const grouping = digits[last] === '.' ? ',' : '.';
  const whole = front.split(grouping);
  const grouped = whole.length === 1 || whole.every((group, i) => (i === 0 ? /^\d{1,3}$/ : /^\d{3}$/).test(group));
  return grouped && /^[\d.,]*$/.test(front) && !front.includes(digits[last] ?? '')
    ? `${whole.join('') || '0'}.${behind}`
    : null;
}

function clip(text: string): string {
  return text.length > 40 ? `${text.slice(0, 37)}…` : text;
}
