import { readAmount } from '@/core/money';
import { parseDomainName } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import type { PastSale } from '@/core/selling';
import { type Day, dayOf, parseDay } from '@/core/time';
import { insertComparables, selectPastSales } from '@/database/sales';
import { selectSettings } from '@/database/settings';
import { areNumbersOpen, numbersOf, styleOfColumn } from '@/formats/csv/numberCells';
import { readTable } from '@/formats/csv/readTable';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';

export function pastSales(deps: Deps): Promise<PastSale[]> {
  return selectPastSales(deps.database);
}

/** What came of bringing past sales in. */
export interface BroughtSales {
  readonly added: number;
  readonly known: number;
  readonly refused: readonly { readonly line: number; readonly problem: string }[];
}

const MOST_ROWS = 20_000;
const HEADINGS: Readonly<Record<string, 'name' | 'price' | 'currency' | 'day' | 'marketplace'>> = {
  name: 'name',
  domain: 'name',
  'domain name': 'name',
  price: 'price',
  amount: 'price',
  sold: 'price',
  'sale price': 'price',
  currency: 'currency',
  date: 'day',
  day: 'day',
  'sold on': 'day',
  'sale date': 'day',
  marketplace: 'marketplace',
  place: 'marketplace',
};

/** Brings past sales of others in from a table with a name, a price and a date (`YYYY-MM-DD`); a row that is there stays as it is. */
export const bringInSales = command(
  'bringInSales',
  async (deps: Deps, text: string, currency: string): Promise<BroughtSales | Refusal> => {
    const table = readTable(text);
    if (isRefusal(table)) return table;
    const [head, ...rows] = table.rows;
    const columns = (head?.cells ?? []).map((cell) => HEADINGS[cell.trim().toLowerCase()] ?? null);
    for (const needed of ['name', 'price', 'day'] as const)
      if (!columns.includes(needed))
        return refuse(
          'column-missing',
          `Begin with a row of headings: name, price, date; also currency and marketplace. There is no ${needed === 'day' ? 'date' : needed}.`,
        );
    if (rows.length > MOST_ROWS) return refuse('too-many-rows', 'Bring in up to 20,000 sales at a time.');
    const found = numbersOf(rows.map(({ cells }) => cells[columns.indexOf('price')] ?? ''));
    const { numberStyle } = await selectSettings(deps.database);
    if (areNumbersOpen(found, numberStyle))
      return refuse('amounts-ambiguous', 'Prices like 1.200 can be read two ways here. Write them like 1200.00.');
    const style = styleOfColumn(found, numberStyle);
    const sales: { ascii: string; minor: number; currency: string; day: Day; marketplace: string }[] = [];
    const refused: { line: number; problem: string }[] = [];
    const today = dayOf(deps.clock());
    for (const { line, cells } of rows) {
      const cell = (what: 'name' | 'price' | 'currency' | 'day' | 'marketplace') =>
        (cells[columns.indexOf(what)] ?? '').trim();
      const name = parseDomainName(cell('name'));
      const code = cell('currency').toUpperCase();
      const price = readAmount(cell('price'), { stated: code || null, usual: currency, style });
      const day = parseDay(cell('day'));
      const problem = isRefusal(name)
        ? name.message
        : isRefusal(price)
          ? price.message
          : day === null || day > today
            ? 'Write the day of the sale like 2026-03-09, not in the future.'
            : price.minor <= 0
              ? 'A sale is for more than nothing.'
              : null;
      if (problem !== null || isRefusal(name) || isRefusal(price) || day === null)
        refused.push({ line, problem: problem ?? '' });
      else
        sales.push({
          ascii: name.ascii,
          minor: price.minor,
          currency: price.currency,
          day,
          marketplace: cell('marketplace').slice(0, 60),
        });
    }
    const added = await changing(deps, (tx) => insertComparables(tx, sales));
    return { added, known: sales.length - added, refused };
  },
);
