import { type Amount, type AmountContext, isCurrency, type NumberStyle, readAmount } from '@/core/money';
import { parseDomainName } from '@/core/names';
import { PRICE_ACTIONS, type Price, type PriceAction, readCondition } from '@/core/pricing';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { type Day, dayOf, readDate } from '@/core/time';
import { areNumbersOpen, numbersOf, styleOfColumn } from '../csv/numberCells';
import { readTable, type TableRow } from '../csv/readTable';
import { undefuse } from '../csv/writeTable';

/** A price of a list, before it is known to which account it belongs. */
export type ListedPrice = Omit<Price, 'accountId' | 'nameId' | 'origin'>;

interface ListRules {
  /** The account's: of amounts that say none. */
  readonly currency: string;
  /** The office's: what “1.200” means where the list itself does not show it. */
  readonly numberStyle: NumberStyle;
  readonly from: Day;
  /** Where the list was seen: of rows that do not say. */
  readonly source: string;
}

/**
 * Reads a price list from CSV. One row for each ending, with a column for each action (`register`, `renew`, `transfer`,
 * `restore`, `privacy`) and each extra (`extra mailbox`), and optionally `first year` with its `condition`, `currency`, `from`,
 * `fee included`, `included`, `source`, and totals for several years (`2 years` of renewing, `register 2 years`). Refused as a whole
 * at the first row that cannot be read.
 */
export function readPriceList(text: string, rules: ListRules): ListedPrice[] | Refusal {
  const table = readTable(text);
  if (isRefusal(table)) return table;
  const headings = (table.rows[0]?.cells ?? []).map((cell) => cell.trim().toLowerCase());
  const ending = headings.findIndex((heading) => ['ending', 'tld', 'extension', 'suffix'].includes(heading));
  const columns = headings.flatMap((heading, place) => columnOf(heading, place) ?? []);
  if (ending < 0 || columns.length === 0) {
    return refuse(
      'price-list-headings',
      'A price list needs a column “ending” and one of “register”, “renew”, “transfer”, “restore” or “privacy”.',
    );
  }
  const rows = table.rows.slice(1);
  const found = numbersOf(rows.flatMap(({ cells }) => cells.filter((_, i) => i !== ending)));
  if (areNumbersOpen(found, rules.numberStyle))
    return refuse(
      'amounts-ambiguous',
      'Amounts like 1.200 can be read two ways here. Write them like 1200.00 and bring the list again.',
    );
  const style = styleOfColumn(found, rules.numberStyle);
  const prices: ListedPrice[] = [];
  for (const row of rows) {
    const read = readPriceRow(row, headings, ending, columns, { ...rules, numberStyle: style });
    if (isRefusal(read)) return refuse(read.code, `Line ${row.line}: ${read.message}`);
    prices.push(...read);
  }
  return prices;
}

/** A column of amounts: what for, and where it stands in a row. */
interface PriceColumn {
  readonly action: PriceAction;
  /** What an extra is called. */
  readonly item: string;
  readonly place: number;
}

function columnOf(heading: string, place: number): PriceColumn | null {
  const extra = /^extra[ :]+(\S.*)$/.exec(heading)?.[1];
  if (extra) return { action: 'extra', item: extra, place };
  const action = PRICE_ACTIONS.find((known) => known === heading && known !== 'extra');
  return action ? { action, item: '', place } : null;
}

function readPriceRow(
  row: TableRow,
  headings: readonly string[],
  ending: number,
  columns: readonly PriceColumn[],
  rules: ListRules,
): ListedPrice[] | Refusal {
  const cell = (heading: string) => undefuse((row.cells[headings.indexOf(heading)] ?? '').trim());
  const probe = parseDomainName(`seaholly.${(row.cells[ending] ?? '').trim().replace(/^\./, '')}`);
  if (isRefusal(probe))
    return refuse(
      'ending-unknown',
      `“${(row.cells[ending] ?? '').slice(0, 40)}” is not an ending. Write one like com or co.uk.`,
    );
  const code = cell('currency').toUpperCase();
  if (code !== '' && !isCurrency(code))
    return refuse('currency-unknown', `“${code.slice(0, 20)}” is not a currency code.`);
  const context: AmountContext = { stated: code || null, usual: rules.currency, style: rules.numberStyle };
  const date = cell('from') === '' ? null : readDate(cell('from'), null);
  if (isRefusal(date)) return date;
  const condition = readCondition(cell('condition'));
  const first = cell('first year') === '' ? null : readAmount(cell('first year'), context);
  if (isRefusal(first)) return first;
  const totals = readTotals(row, headings, context);
  if (isRefusal(totals)) return totals;
  const prices: ListedPrice[] = [];
  for (const { action, item, place } of columns) {
    const text = undefuse((row.cells[place] ?? '').trim());
    if (text === '' || text === '-') continue;
    const price = readAmount(text, context);
    if (isRefusal(price)) return price;
    const other = [...(totals?.amounts ?? []), ...(first ? [first] : [])].find(
      (one) => one.currency !== price.currency,
    );
    if (other)
      return refuse(
        'currency-contradicts',
        `${price.currency} and ${other.currency} stand in one row. Write a row for each.`,
      );
    prices.push({
      ending: probe.ending,
      action,
      currency: price.currency,
      yearMinor: price.minor,
      termTotals: totals?.byAction[action] ?? null,
      firstYearMinor: action === 'register' ? (first?.minor ?? null) : null,
      firstYearCondition: action === 'register' && first ? condition : null,
      feeIncluded: /^(yes|y|true|1|included)$/i.test(cell('fee included')),
      from: date === null ? rules.from : dayOf(date.at),
      item,
      included: cell('included'),
      source: cell('source') || rules.source,
    });
  }
  return prices;
}

/** Totals by action and years, with the amounts as they stood. */
interface Totals {
  readonly byAction: Readonly<Partial<Record<PriceAction, Record<string, number>>>>;
  readonly amounts: readonly Amount[];
}

/** Totals of the columns headed `2 years` (of renewing) or `register 2 years`, and so on. */
function readTotals(row: TableRow, headings: readonly string[], context: AmountContext): Totals | null | Refusal {
  const byAction: Partial<Record<PriceAction, Record<string, number>>> = {};
  const amounts: Amount[] = [];
  for (const [i, heading] of headings.entries()) {
    const [, named, years] = /^(?:(register|renew) )?(\d{1,2}) years?$/.exec(heading) ?? [];
    const text = undefuse((row.cells[i] ?? '').trim());
    if (years === undefined || text === '') continue;
    const total = readAmount(text, context);
    if (isRefusal(total)) return total;
    const action = named === 'register' ? 'register' : 'renew';
    byAction[action] = { ...byAction[action], [years]: total.minor };
    amounts.push(total);
  }
  return amounts.length > 0 ? { byAction, amounts } : null;
}
