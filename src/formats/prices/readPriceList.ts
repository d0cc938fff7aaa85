import { type Amount, type AmountContext, isCurrency, type NumberStyle, readAmount } from '@/core/money';
import { parseDomainName } from '@/core/names';
import { PRICE_ACTIONS, type Price, type PriceAction } from '@/core/pricing';
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
}

const CONDITIONS = ['any term', 'one year only', 'three years only', 'new customers'] as const;

/**
 * Reads a price list from CSV. One row for each ending, with a column for each action (`register`, `renew`, `transfer`,
 * `restore`, `privacy`), and optionally `first year`, `condition`, `currency`, `from`, `fee included`, and totals for
 * renewing several years (`2 years`, `3 years`). Refused as a whole at the first row that cannot be read.
 */
export function readPriceList(text: string, rules: ListRules): ListedPrice[] | Refusal {
  const table = readTable(text);
  if (isRefusal(table)) return table;
  const headings = (table.rows[0]?.cells ?? []).map((cell) => cell.trim().toLowerCase());
  const ending = headings.findIndex((heading) => ['ending', 'tld', 'extension', 'suffix'].includes(heading));
  const actions = headings.flatMap((heading, i) => (isAction(heading) ? [[heading, i] as const] : []));
  if (ending < 0 || actions.length === 0) {
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
    const read = readPriceRow(row, headings, ending, actions, { ...rules, numberStyle: style });
    if (isRefusal(read)) return refuse(read.code, `Line ${row.line}: ${read.message}`);
    prices.push(...read);
  }
  return prices;
}

function isAction(heading: string): heading is PriceAction {
  return (PRICE_ACTIONS as readonly string[]).includes(heading);
}

function readPriceRow(
  row: TableRow,
  headings: readonly string[],
  ending: number,
  actions: readonly (readonly [PriceAction, number])[],
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
  const condition = CONDITIONS.find((known) => known === cell('condition').toLowerCase()) ?? null;
  const first = cell('first year') === '' ? null : readAmount(cell('first year'), context);
  if (isRefusal(first)) return first;
  const totals = readTotals(row, headings, context);
  if (isRefusal(totals)) return totals;
  const prices: ListedPrice[] = [];
  for (const [action, place] of actions) {
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
      termTotals: action === 'renew' ? (totals?.byYears ?? null) : null,
      firstYearMinor: action === 'register' ? (first?.minor ?? null) : null,
      firstYearCondition: action === 'register' && first ? (condition ?? 'any term') : null,
      feeIncluded: /^(yes|y|true|1|included)$/i.test(cell('fee included')),
      from: date === null ? rules.from : dayOf(date.at),
    });
  }
  return prices;
}

/** Totals of the columns headed `2 years`, `3 years` and so on. */
function readTotals(
  row: TableRow,
  headings: readonly string[],
  context: AmountContext,
): { readonly byYears: Record<string, number>; readonly amounts: readonly Amount[] } | null | Refusal {
  const totals: Record<string, number> = {};
  const amounts: Amount[] = [];
  for (const [i, heading] of headings.entries()) {
    const years = /^(\d{1,2}) years?$/.exec(heading)?.[1];
    const text = undefuse((row.cells[i] ?? '').trim());
    if (years === undefined || text === '') continue;
    const total = readAmount(text, context);
    if (isRefusal(total)) return total;
    totals[years] = total.minor;
    amounts.push(total);
  }
  return amounts.length > 0 ? { byYears: totals, amounts } : null;
}
