import type { AutoRenewSetting } from '@/core/funding';
import { PURPOSES, type Purpose } from '@/core/ledger';
import { type Amount, isCurrency, type NumberStyle, readAmount } from '@/core/money';
import { type DomainName, type NameRules, parseDomainName } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { isOneLine, refuseText } from '@/core/text/plainText';
import { type Day, dayOf, readDate, type TermEnd } from '@/core/time';
import type { TableRow } from '../csv/readTable';
import { undefuse } from '../csv/writeTable';
import { type ColumnReading, type Mapping, numbersIn, orderOf, type PortfolioField } from './columns';
import { yesOrNo } from './yesOrNo';

/** One row of a list of names, read. What the list does not say is left out and changes nothing. */
export interface PortfolioRow {
  readonly name: DomainName;
  readonly account?: string;
  readonly registered?: TermEnd;
  readonly expires?: TermEnd;
  readonly setting?: AutoRenewSetting;
  readonly lock?: boolean;
  readonly privacy?: boolean;
  readonly nameServers?: readonly string[];
  readonly tags?: readonly string[];
  readonly purpose?: Purpose;
  readonly neverLost?: boolean;
  readonly paid?: Amount;
  readonly boughtOn?: Day;
  readonly renewalPrice?: Amount;
  readonly asking?: Amount;
  readonly notes?: string;
}

const MOST_LETTERS = 4000;

const PURPOSE_WORDS: Readonly<Record<string, Purpose>> = {
  use: 'in use',
  used: 'in use',
  keep: 'hold',
  sale: 'for sale',
  sell: 'for sale',
  selling: 'for sale',
  drop: 'drop',
};

function switchOf(text: string, what: string): boolean | Refusal {
  return (
    yesOrNo(text) ??
    refuse('not-yes-or-no', `“${text.slice(0, 40)}” under ${what} is neither yes nor no. Write yes or no.`)
  );
}

function settingOf(text: string): AutoRenewSetting | Refusal {
  const word = text.toLowerCase();
  if (word === 'stalled' || word === 'failed') return 'stalled';
  if (word === 'unknown' || word === '?') return 'unknown';
  const on = switchOf(text, 'auto-renew');
  return isRefusal(on) ? on : on ? 'on' : 'off';
}

function purposeOf(text: string): Purpose | null {
  const word = text.toLowerCase().replaceAll(/[-_]/g, ' ');
  return PURPOSES.find((purpose) => purpose === word) ?? PURPOSE_WORDS[word] ?? null;
}

function list(text: string): string[] {
  return [
    ...new Set(
      text
        .split(/[,;|\n]+/)
        .map((piece) => piece.trim())
        .filter((piece) => piece !== ''),
    ),
  ];
}

export interface RowRules extends NameRules {
  /** The currency of amounts that carry none and stand beside no currency column. */
  readonly currency: string;
  /** What “1.200” means in a column that does not decide it. */
  readonly numberStyle: NumberStyle;
}

/** A row as it was read, with what of it could not be: a bad cell loses that cell, not its row. */
export interface ReadRow extends PortfolioRow {
  /** Why cells were left out, in words. */
  readonly lost: readonly string[];
}

/**
 * A reader of rows by one mapping: it gives what a row says, or why it is refused. Only the name decides about the row; of any other
 * cell that cannot be read it is said that it was left out, so that nothing half understood is ever written.
 */
export function portfolioReader(mapping: Mapping, rules: RowRules): (row: TableRow) => ReadRow | Refusal {
  const columns = new Map(
    mapping.columns.flatMap((column, place) => (column.field ? [[column.field, { column, place }] as const] : [])),
  );
  return (row) => readRow(row, columns, rules);
}

type PlacedColumns = ReadonlyMap<PortfolioField, { readonly column: ColumnReading; readonly place: number }>;

const NOTHING = /^(n\/?a|-|–|none|null|0000-00-00.*)$/i;

function readRow(row: TableRow, columns: PlacedColumns, rules: RowRules): ReadRow | Refusal {
  const cell = (field: PortfolioField) => {
    const placed = columns.get(field);
    return placed === undefined ? '' : undefuse((row.cells[placed.place] ?? '').trim());
  };
  const name = parseDomainName(cell('name'), rules);
  if (isRefusal(name)) return name;
  const lost: string[] = [];
  /** What a cell says; of one that cannot be read why, and nothing. */
  const take = <T>(value: T | Refusal): T | undefined => {
    if (!isRefusal(value)) return value;
    lost.push(value.message);
    return undefined;
  };
  const read: { -readonly [K in keyof PortfolioRow]?: PortfolioRow[K] } = {};
  for (const field of ['registered', 'expires', 'boughtOn'] as const) {
    const text = cell(field);
    const column = columns.get(field)?.column;
    if (text === '' || !column || NOTHING.test(text)) continue;
    const value = take(readDate(text, orderOf(column)));
    if (value === undefined) continue;
    if (field === 'boughtOn') read.boughtOn = dayOf(value.at);
    else read[field] = value;
  }
  if (read.registered && read.expires && read.registered.at > read.expires.at) {
    lost.push('The term ends before the name was registered: both days are left out. Check them.');
    delete read.registered;
    delete read.expires;
  }
  Object.assign(read, readMoney(cell, columns, rules, take));
  for (const [field, what] of [
    ['lock', 'lock'],
    ['privacy', 'privacy'],
    ['neverLost', 'never to be lost'],
  ] as const) {
    const value = cell(field) === '' ? undefined : take(switchOf(cell(field), what));
    if (value !== undefined) read[field] = value;
  }
  const setting = cell('autoRenew') === '' ? undefined : take(settingOf(cell('autoRenew')));
  if (setting !== undefined) read.setting = setting;
  const purpose = cell('purpose') === '' ? null : purposeOf(cell('purpose'));
  if (purpose) read.purpose = purpose;
  if (cell('nameServers') !== '')
    read.nameServers = cell('nameServers')
      .toLowerCase()
      .split(/[\s,;|]+/)
      .filter((host) => host !== '');
  for (const field of ['account', 'notes', 'tags'] as const) {
    const text = take(textOf(field, cell(field)));
    if (text === undefined || text === '') continue;
    if (field === 'tags') read.tags = list(text).sort();
    else read[field] = text;
  }
  return { name, ...read, lost };
}

function textOf(field: 'account' | 'tags' | 'notes', text: string): string | Refusal {
  const bad = refuseText(text, field);
  if (bad) return bad;
  if (field !== 'notes' && !isOneLine(text))
    return refuse('text-several-lines', `The cell for ${field} has several lines. Write it in one.`, field);
  return text.length > MOST_LETTERS
    ? refuse('text-too-long', `The text under ${field} is too long: ${MOST_LETTERS} letters at most.`, field)
    : text;
}

/** The amounts of a row. A code that is none says nothing of the currency, and so nothing of amounts without one. */
function readMoney(
  cell: (field: PortfolioField) => string,
  columns: PlacedColumns,
  rules: RowRules,
  take: <T>(value: T | Refusal) => T | undefined,
): Pick<PortfolioRow, 'paid' | 'renewalPrice' | 'asking'> {
  const found: { -readonly [K in 'paid' | 'renewalPrice' | 'asking']?: Amount } = {};
  const code = cell('currency').toUpperCase();
  if (code !== '' && !isCurrency(code)) {
    take(
      refuse(
        'currency-unknown',
        `“${code.slice(0, 20)}” is not a currency code: the amounts beside it are left out. Write USD, EUR, GBP or another of ISO 4217.`,
      ),
    );
    return found;
  }
  for (const [field, key] of [
    ['pricePaid', 'paid'],
    ['renewalPrice', 'renewalPrice'],
    ['askingPrice', 'asking'],
  ] as const) {
    const text = cell(field);
    const column = columns.get(field)?.column;
    if (text === '' || !column || NOTHING.test(text)) continue;
    const style = numbersIn(column, rules.numberStyle);
    const value = take(readAmount(text, { stated: code || null, usual: rules.currency, style }));
    if (value !== undefined) found[key] = value;
  }
  return found;
}
