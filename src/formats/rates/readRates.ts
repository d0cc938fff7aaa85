import { XMLParser } from 'fast-xml-parser';
import { isCurrency, type Rate } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { type Day, dayOf, readDate } from '@/core/time';
import { readTable, type TableRow } from '../csv/readTable';

interface RateRules {
  /** What the rates of a table count in where it does not say: the office's currency. */
  readonly into: string;
  /** Of a bank's reference rates in CSV: the bank's own currency, one unit of which each column prices. */
  readonly base: string;
  /** Later days are refused. */
  readonly today: Day;
}

/** The currency of the reference rates in XML, by the format's own definition. */
const XML_BASE = 'EUR';
const MOST_RATES = 50_000;
/** The limits of a typed rate hold here too. */
const LEAST = 0.000_001;
const GREATEST = 1_000_000;
const DAY_HEADINGS = ['day', 'date', 'from', 'time period'];

/**
 * Reads rates between currencies from any of three shapes, told by what is in it:
 * CSV with `day`, `currency`, `rate` and optionally `into` (one unit of the currency is worth so many of `into`);
 * CSV with `date` and a column for each currency, and XML of nested `Cube` elements with `time`, `currency` and `rate`: the reference
 * rates that central banks publish daily, each the number of units for one of the bank's own.
 * Refused as a whole at the first figure that cannot be read, and where thousands cannot be told from decimals.
 */
export function readRates(text: string, rules: RateRules): Rate[] | Refusal {
  const cells = /^\s*(\uFEFF)?\s*</.test(text) ? cellsOfXml(text) : cellsOfTable(text, rules);
  if (isRefusal(cells)) return cells;
  if (cells.length > MOST_RATES)
    return refuse('too-many-rates', `This holds ${cells.length.toLocaleString('en')} rates; bring fewer days at once.`);
  const mark = decimalMark(cells.map(({ figure }) => figure));
  if (mark === null)
    return refuse(
      'rates-ambiguous',
      'Rates like 1,200 can be read two ways here. Write them like 1.2000 and bring the file again.',
    );
  const rates: Rate[] = [];
  for (const { where, day, currency, into, figure } of cells) {
    const read = readRate({ day, currency, into, figure }, mark, rules.today);
    if (isRefusal(read)) return refuse(read.code, `${where}: ${read.message}`);
    rates.push(read);
  }
  return rates.length > 0 ? rates : refuse('no-rates', 'No rates were found in it.');
}

/** One figure, with what it is about, as it stands in the file. */
interface RateCell {
  readonly where: string;
  readonly day: string;
  readonly currency: string;
  readonly into: string;
  readonly figure: string;
}

const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: '@',
  removeNSPrefix: true,
  parseTagValue: false,
  parseAttributeValue: false,
});

function cellsOfXml(text: string): RateCell[] | Refusal {
  const unread = refuse(
    'rates-unread',
    'This XML is not one of reference rates, with a day, a currency and a rate to each.',
  );
  if (/<!(DOCTYPE|ENTITY)/i.test(text)) return unread;
  const cells: RateCell[] = [];
  const look = (node: unknown, day: string): void => {
    if (Array.isArray(node)) for (const one of node) look(one, day);
    else if (typeof node === 'object' && node !== null) {
      const { '@time': time, '@currency': currency, '@rate': rate, Cube } = node as Record<string, unknown>;
      const own = typeof time === 'string' ? time : day;
      if (typeof currency === 'string' && typeof rate === 'string')
        cells.push({ where: `${own} ${currency}`, day: own, currency: XML_BASE, into: currency, figure: rate });
      look(Cube, own);
    }
  };
  try {
    const raw = parser.parse(text, true) as { Envelope?: { Cube?: unknown }; Cube?: unknown };
    look(raw.Envelope?.Cube ?? raw.Cube, '');
  } catch {
    return unread;
  }
  return cells.length > 0 ? cells : unread;
}

function cellsOfTable(text: string, rules: RateRules): RateCell[] | Refusal {
  const table = readTable(text);
  if (isRefusal(table)) return table;
  const headings = (table.rows[0]?.cells ?? []).map((cell) => cell.trim().toLowerCase());
  const day = headings.findIndex((heading) => DAY_HEADINGS.includes(heading));
  const currency = headings.indexOf('currency');
  const rate = headings.indexOf('rate');
  const rows = table.rows.slice(1);
  const cell = ({ cells }: TableRow, place: number) => (place < 0 ? '' : (cells[place] ?? '').trim());
  if (day >= 0 && currency >= 0 && rate >= 0)
    return rows.map((row) => ({
      where: `Line ${row.line}`,
      day: cell(row, day),
      currency: cell(row, currency).toUpperCase(),
      into: cell(row, headings.indexOf('into')).toUpperCase() || rules.into,
      figure: cell(row, rate),
    }));
  const columns = headings.flatMap((heading, place) =>
    /^[a-z]{3}$/.test(heading) && place !== day ? [{ code: heading.toUpperCase(), place }] : [],
  );
  if (day < 0 || columns.length === 0)
    return refuse(
      'rates-headings',
      'Rates need columns “day”, “currency” and “rate”, or “date” and one for each currency.',
    );
  return rows.flatMap((row) =>
    columns
      // A day without a figure, as banks write it.
      .filter(({ code, place }) => code !== rules.base && !/^(n\/a|-|)$/i.test(cell(row, place)))
      .map(({ code, place }) => ({
        where: `Line ${row.line}, ${code}`,
        day: cell(row, day),
        currency: rules.base,
        into: code,
        figure: cell(row, place),
      })),
  );
}

/** The mark before the decimals, as the figures together show it; `null` where they leave it open or contradict each other. */
function decimalMark(figures: readonly string[]): '.' | ',' | null {
  let point = false;
  let comma = false;
  let isOpen = false;
  for (const figure of figures) {
    const last = /([.,])(\d+)$/.exec(figure);
    if (!last) continue;
    const [, mark, decimals = ''] = last;
    const other = figure.includes(mark === '.' ? ',' : '.');
    const shows = other || decimals.length !== 3 || /^0[.,]/.test(figure);
    if (!shows) isOpen ||= mark === ',';
    else if (mark === '.') point = true;
    else comma = true;
  }
  if (point && comma) return null;
  if (comma) return ',';
  return isOpen && !point ? null : '.';
}

function readRate(cell: Omit<RateCell, 'where'>, mark: '.' | ',', today: Day): Rate | Refusal {
  const date = readDate(cell.day, null);
  if (isRefusal(date)) return date;
  const from = dayOf(date.at);
  if (from > today)
    return refuse('date-out-of-range', `${cell.day} lies ahead. A rate is known once its day has come.`);
  const unknown = [cell.currency, cell.into].find((code) => !isCurrency(code));
  if (unknown !== undefined || cell.currency === cell.into)
    return refuse('currency-unknown', `“${(unknown ?? cell.into).slice(0, 20)}” is not the code of another currency.`);
  const plain = cell.figure.replaceAll(mark === '.' ? ',' : '.', '').replace(',', '.');
  const factor = /^\d{1,9}(\.\d{1,12})?$/.test(plain) ? Number(plain) : 0;
  if (factor < LEAST || factor > GREATEST)
    return refuse('rate-unread', `“${cell.figure.slice(0, 40)}” is not a rate like 1.0865.`);
  return { from, currency: cell.currency, into: cell.into, factor };
}
