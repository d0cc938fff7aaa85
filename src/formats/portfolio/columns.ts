import type { NumberStyle } from '@/core/money';
import { DATE_ORDERS, type DateOrder, DateOrders, type FoundOrder, looksLikeDate } from '@/core/time';
import { areNumbersOpen, type FoundNumbers, NumberCells, styleOfColumn } from '../csv/numberCells';
import type { Table } from '../csv/readTable';
import type { PortfolioField } from './fields';
import { fieldOfHeading } from './headings';

export { PORTFOLIO_FIELDS, type PortfolioField } from './fields';

import { yesOrNo } from './yesOrNo';

export const DATE_FIELDS: readonly PortfolioField[] = ['registered', 'expires', 'boughtOn'];

/** How one column of a file is read: `null` leaves it out. */
export interface ColumnReading {
  readonly heading: string;
  readonly field: PortfolioField | null;
  /** For a date column whose cells leave it open: what the person said, `null` while nobody has. */
  readonly order: DateOrder | null;
  readonly foundOrder: FoundOrder;
  /** For a column of amounts that leaves it open: what the person said `1.200` means. */
  readonly numbers?: NumberStyle | null;
  readonly foundNumbers?: FoundNumbers;
  /** Something stands in it. */
  readonly isFilled?: boolean;
}

/** How a file is read. */
export interface Mapping {
  readonly hasHeadings: boolean;
  readonly columns: readonly ColumnReading[];
}

/** A text with a point and an ending of letters. */
const NAME_SHAPE = /^(https?:\/\/)?[^\s/@]+\.(?=[\p{N}-]*\p{L})[\p{L}\p{N}-]{2,}\.?\/?$/u;
const MONEY_SHAPE = /^[^\d\s]{0,4}\s?\d[\d.,'’\s]*\s?\D{0,4}$/u;
const SAMPLE = 2000;

/** True for a text that looks like a name with its ending. */
export function looksLikeName(text: string): boolean {
  return NAME_SHAPE.test(text);
}

/** What the cells of a column look like, whatever stands above them. */
type Content = 'name' | 'date' | 'money' | 'yes or no';

const CONTENT_OF: Readonly<Partial<Record<PortfolioField, Content>>> = {
  name: 'name',
  registered: 'date',
  expires: 'date',
  boughtOn: 'date',
  autoRenew: 'yes or no',
  lock: 'yes or no',
  privacy: 'yes or no',
  neverLost: 'yes or no',
  pricePaid: 'money',
  renewalPrice: 'money',
  askingPrice: 'money',
};

/** What a heading of renewing means over each content: a price, a day, or whether it happens by itself. */
const RENEWING: readonly PortfolioField[] = ['autoRenew', 'expires', 'renewalPrice'];

/** The field of a column by its heading, or by what its cells show where they contradict it; `null` where nothing fits. */
function fieldOf(heading: PortfolioField | null, content: Content | null): PortfolioField | null {
  if (heading === null || content === null) return heading;
  const expected = CONTENT_OF[heading];
  if (expected === undefined || expected === content) return heading;
  return RENEWING.includes(heading) ? (RENEWING.find((field) => CONTENT_OF[field] === content) ?? null) : null;
}

/** What the columns of a table hold, as its headings and the first of its rows show. */
export interface FoundFields {
  readonly hasHeadings: boolean;
  readonly columns: readonly Pick<ColumnReading, 'heading' | 'field'>[];
}

/**
 * Finds the fields of a table: by its headings where it has any, and by what its cells look like where a heading says nothing or
 * contradicts them. No field is given to two columns: the first keeps it.
 */
export function findFields(table: Table): FoundFields {
  const first = table.rows[0]?.cells ?? [];
  const headings = first.map(fieldOfHeading);
  const hasHeadings =
    headings.includes('name') ||
    (headings.some((field) => field !== null) && !first.some((cell) => looksLikeName(cell.trim())));
  const sample = bodyOf(table, hasHeadings).slice(0, SAMPLE);
  const columns = Array.from({ length: table.columns }, (_, i) => {
    const content = contentOf(sample.map((row) => row.cells[i] ?? ''));
    const heading = hasHeadings ? (headings[i] ?? null) : null;
    return { content, heading, text: hasHeadings ? (first[i]?.trim() ?? '') : '', field: fieldOf(heading, content) };
  });
  const taken = new Set<PortfolioField>();
  const claimed = columns.map(({ field }) => {
    if (field === null || taken.has(field)) return null;
    taken.add(field);
    return field;
  });
  // What no heading speaks of is proposed by its content: the name itself, the end of the term, and before it the begin.
  const fields = claimed.map((field, i) => {
    const column = columns[i];
    if (field !== null || !column || column.heading !== null) return field;
    const found = byContent(column.content, column.text, taken, hasHeadings);
    if (found) taken.add(found);
    return found;
  });
  return { hasHeadings, columns: columns.map(({ text }, i) => ({ heading: text, field: fields[i] ?? null })) };
}

/** Proposes how to read a table: its fields, and what every cell says of how dates and amounts are written. The person can correct it. */
export function proposeMapping(table: Table): Mapping {
  const { hasHeadings, columns } = findFields(table);
  const looks = columns.map(() => new ColumnLook());
  // Row by row, as the cells lie in memory.
  for (const { cells } of bodyOf(table, hasHeadings)) {
    for (let i = 0; i < looks.length; i += 1) looks[i]?.at(cells[i] ?? '');
  }
  return {
    hasHeadings,
    columns: columns.map(({ heading, field }, i) => {
      const look = looks[i] as ColumnLook;
      return {
        heading,
        field,
        order: null,
        foundOrder: look.dates.found,
        numbers: null,
        foundNumbers: look.numbers.found,
        isFilled: look.isFilled,
      };
    }),
  };
}

const bodyOf = ({ rows }: Table, hasHeadings: boolean) => (hasHeadings ? rows.slice(1) : rows);

/** What the cells of one column show, from above to below. */
class ColumnLook {
  readonly dates = new DateOrders();
  readonly numbers = new NumberCells();
  isFilled = false;
  #above = '';

  at(cell: string): void {
    // Of a long list most cells say what stands above them.
    if (cell === this.#above) return;
    this.#above = cell;
    this.isFilled ||= cell.trim() !== '';
    this.dates.look(cell);
    this.numbers.look(cell);
  }
}

/** Headings of days that are no end of a term. */
const OTHER_DAY = /updat|chang|modif|check|last|letzte|geändert|derni|últim|ultim|laatst|ostatni|senast|son/i;

function byContent(
  content: Content | null,
  heading: string,
  taken: ReadonlySet<PortfolioField>,
  hasHeadings: boolean,
): PortfolioField | null {
  if (content === 'name' && !taken.has('name')) return 'name';
  if (content !== 'date' || OTHER_DAY.test(heading)) return null;
  if (!taken.has('expires')) return 'expires';
  return hasHeadings || taken.has('registered') ? null : 'registered';
}

/** Puts remembered fields and answers onto a proposal for a file with the same headings. */
export function withRemembered(proposal: Mapping, remembered: Mapping | null): Mapping {
  if (!remembered || remembered.columns.length !== proposal.columns.length) return proposal;
  const columns = proposal.columns.map((column, i) => {
    const old = remembered.columns[i];
    return old ? { ...column, field: old.field, order: old.order, numbers: old.numbers ?? null } : column;
  });
  return { hasHeadings: remembered.hasHeadings, columns };
}

/** What has to be said of a column before it can be read. */
export interface OpenQuestion {
  readonly column: ColumnReading;
  readonly about: 'dates' | 'amounts';
}

/** True for a column of dates whose cells leave open what stands first. */
export function isOpen({ field, foundOrder }: ColumnReading): boolean {
  return field !== null && DATE_FIELDS.includes(field) && (foundOrder === 'either' || foundOrder === 'contradictory');
}

/** True for a column of amounts of which neither its cells nor the office's style say what `1.200` means. */
export function areAmountsOpen({ field, foundNumbers }: ColumnReading, office: NumberStyle): boolean {
  return field !== null && CONTENT_OF[field] === 'money' && areNumbersOpen(foundNumbers ?? 'not needed', office);
}

/** What nobody has decided yet. */
export function openQuestions(mapping: Mapping, office: NumberStyle): OpenQuestion[] {
  return mapping.columns.flatMap((column): OpenQuestion[] => {
    if (isOpen(column) && column.order === null) return [{ column, about: 'dates' }];
    return areAmountsOpen(column, office) && !column.numbers ? [{ column, about: 'amounts' }] : [];
  });
}

/** The order in which a column's numeric dates are read. */
export function orderOf(column: ColumnReading): DateOrder | null {
  if (column.order !== null) return column.order;
  return (DATE_ORDERS as readonly string[]).includes(column.foundOrder) ? (column.foundOrder as DateOrder) : null;
}

/** How a column's amounts are written: as was said, as its cells show, or as the office writes. */
export function numbersIn(column: ColumnReading, office: NumberStyle): NumberStyle {
  return column.numbers ?? styleOfColumn(column.foundNumbers ?? 'not needed', office);
}

/** Headings of filled columns that are not used, to be named before anything is written. */
export function unusedColumns(mapping: Mapping): string[] {
  return mapping.columns.flatMap(({ heading, field, isFilled }, i) =>
    field === null && isFilled ? [heading || `column ${i + 1}`] : [],
  );
}

function contentOf(cells: readonly string[]): Content | null {
  const filled = cells.map((cell) => cell.trim()).filter((cell) => cell !== '');
  const most = (test: (cell: string) => boolean) => filled.length > 0 && filled.filter(test).length * 2 > filled.length;
  if (most(looksLikeName)) return 'name';
  if (most(looksLikeDate)) return 'date';
  if (most((cell) => yesOrNo(cell) !== null)) return 'yes or no';
  // Plain figures may be anything: at least one has cents or a currency.
  const isMoney = (cell: string) => MONEY_SHAPE.test(cell) && cell.length < 30;
  return most(isMoney) && filled.some((cell) => isMoney(cell) && /[.,]\d{1,2}\D*$|[^\d\s.,'’]/.test(cell))
    ? 'money'
    : null;
}
