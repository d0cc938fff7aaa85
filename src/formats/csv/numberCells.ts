import { type NumberStyle, USUAL_STYLE } from '@/core/money';

/**
 * What the cells of one column say of how its amounts are written: cents behind a point or a comma are seen, or all of it is left
 * open by cells like `1.200` or `1,200`, or nothing needs to be known.
 */
export const FOUND_NUMBERS = ['point', 'comma', 'open point', 'open comma', 'open both', 'not needed'] as const;
export type FoundNumbers = (typeof FOUND_NUMBERS)[number];

const CENTS = /([.,])\d{1,2}$/;
const OPEN = /^[1-9]\d{0,2}([.,])\d{3}$/;
/** What may hold cents or thousands: a mark with a digit somewhere behind it. */
const MARKED = /[.,]\D*\d/;
/** No amount is longer, currency included: longer cells need no look. */
const LONGEST_AMOUNT = 40;

/** Is shown the cells of one column and says how it writes cents. */
export class NumberCells {
  readonly #cents = new Set<string>();
  readonly #open = new Set<string>();

  look(cell: string): void {
    if (cell.length > LONGEST_AMOUNT || !MARKED.test(cell)) return;
    const figure = cell.replace(/[^\d.,]/g, '').replace(/^[.,]+|[.,]+$/g, '');
    const cents = CENTS.exec(figure)?.[1];
    if (cents && !figure.slice(0, figure.lastIndexOf(cents)).includes(cents)) this.#cents.add(cents);
    const mark = OPEN.exec(figure)?.[1];
    if (mark) this.#open.add(mark);
  }

  get found(): FoundNumbers {
    const [cents, open] = [this.#cents, this.#open];
    if (open.size === 0 || cents.size === 2)
      return cents.size === 1 ? (cents.has('.') ? 'point' : 'comma') : 'not needed';
    if (cents.size === 1) return cents.has('.') ? 'point' : 'comma';
    return open.size === 2 ? 'open both' : open.has('.') ? 'open point' : 'open comma';
  }
}

/** How the amounts of some cells are written. */
export function numbersOf(cells: Iterable<string>): FoundNumbers {
  const numbers = new NumberCells();
  for (const cell of cells) numbers.look(cell);
  return numbers.found;
}

const usesComma = (style: NumberStyle) => style === '1.234,50' || style === '1 234,50';

/** The style in which a column is read: as its cells show, else as the office writes. */
export function styleOfColumn(found: FoundNumbers, office: NumberStyle): NumberStyle {
  if (found === 'point') return usesComma(office) ? USUAL_STYLE : office;
  if (found === 'comma') return usesComma(office) ? office : '1.234,50';
  return office;
}

/** True where neither the cells of a column nor the office's style say what `1.200` means in it. */
export function areNumbersOpen(found: FoundNumbers, office: NumberStyle): boolean {
  switch (found) {
    case 'open point':
      return office !== '1.234,50';
    case 'open comma':
      return office !== '1,234.50';
    case 'open both':
      return true;
    default:
      return false;
  }
}
