import type { AutoRenewSetting } from '@/core/funding';
import { PURPOSES, type Purpose } from '@/core/ledger';
import { type Amount, isCurrency } from '@/core/money';
import { type DomainName, type NameRules, parseDomainName } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { isOneLine, refuseText } from '@/core/text/plainText';
import { type Day, dayOf, type TermEnd } from '@/core/time';
import { readDateCell } from '../csv/dateCells';
import { readMoneyCell } from '../csv/moneyCells';
import type { TableRow } from '../csv/readTable';
import { undefuse } from '../csv/writeTable';
import { type ColumnReading, type Mapping, orderOf, type PortfolioField } from './columns';

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

const YES = new Set([
  'yes',
  'y',
  'on',
  'true',
  '1',
  'enabled',
  'active',
  'locked',
  'auto',
  'automatic',
  'autorenew',
  'private',
  'ja',
  'oui',
  'si',
  'x',
]);
const NO = new Set([
  'no',
  'n',
  'off',
  'false',
  '0',
  'disabled',
  'inactive',
  'unlocked',
  'manual',
  'none',
  'expire',
  'nein',
  'non',
  'public',
  '-',
]);
const MOST_LETTERS = 4000;

const PURPOSE_WORDS: Readonly<Record<string, Purpose>> = {
  use: 'in use',
  used: 'in use',
  keep: 'hold',
  sale: 'for sale',
  sell: 'for sale',
  selling: 'for sale',
  drop: 'let go',
};

function yesOrNo(text: string, what: string): boolean | Refusal {
  const word = text.toLowerCase();
  if (YES.has(word)) return true;
  if (NO.has(word)) return false;
  return refuse('not-yes-or-no', `“${text.slice(0, 40)}” under ${what} is neither yes nor no. Write yes or no.`);
}

function settingOf(text: string): AutoRenewSetting | Refusal {
  const word = text.toLowerCase();
  if (word === 'stalled' || word === 'failed') return 'stalled';
  if (word === 'unknown' || word === '?') return 'unknown';
  const on = yesOrNo(text, 'auto-renew');
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
}

/**
 * A reader of rows by one mapping: it gives what a row says, or why it is refused. The name is read first, then each cell;
 * the first cell that cannot be read refuses the whole row, so that nothing half understood is ever written.
 */
export function portfolioReader(mapping: Mapping, rules: RowRules): (row: TableRow) => PortfolioRow | Refusal {
  const columns = new Map(
    mapping.columns.flatMap((column, place) => (column.field ? [[column.field, { column, place }] as const] : [])),
  );
  return (row) => readRow(row, columns, rules);
}

type PlacedColumns = ReadonlyMap<PortfolioField, { readonly column: ColumnReading; readonly place: number }>;

function readRow(row: TableRow, columns: PlacedColumns, rules: RowRules): PortfolioRow | Refusal {
  const cell = (field: PortfolioField) => {
    const placed = columns.get(field);
    return placed === undefined ? '' : undefuse((row.cells[placed.place] ?? '').trim());
  };
  const name = parseDomainName(cell('name'), rules);
  if (isRefusal(name)) return name;
  const code = cell('currency').toUpperCase();
  if (code !== '' && !isCurrency(code))
    return refuse(
      'currency-unknown',
      `“${code.slice(0, 20)}” is not a currency code. Write USD, EUR, GBP or another of ISO 4217.`,
    );
  const currency = code || rules.currency;
  const read: { -readonly [K in keyof PortfolioRow]?: PortfolioRow[K] } = {};
  const date = (field: PortfolioField): TermEnd | Refusal | null => {
    const text = cell(field);
    const column = columns.get(field)?.column;
    return text === '' || !column || /^(n\/?a|-|none|null|0000-00-00.*)$/i.test(text)
      ? null
      : readDateCell(text, orderOf(column));
  };
  for (const field of ['registered', 'expires', 'boughtOn'] as const) {
    const value = date(field);
    if (isRefusal(value)) return { ...value, field };
    if (value === null) continue;
    if (field === 'boughtOn') read.boughtOn = dayOf(value.at);
    else read[field] = value;
  }
  if (read.registered && read.expires && read.registered.at > read.expires.at) {
    return refuse('dates-reversed', 'The term ends before the name was registered. Check the two dates.', 'expires');
  }
  for (const [field, key] of [
    ['pricePaid', 'paid'],
    ['renewalPrice', 'renewalPrice'],
    ['askingPrice', 'asking'],
  ] as const) {
    const text = cell(field);
    if (text === '' || text === '-') continue;
    const value = readMoneyCell(text, currency);
    if (isRefusal(value)) return { ...value, field };
    read[key] = value;
  }
  for (const [field, what] of [
    ['lock', 'lock'],
    ['privacy', 'privacy'],
    ['neverLost', 'never to be lost'],
  ] as const) {
    const text = cell(field);
    if (text === '') continue;
    const value = yesOrNo(text, what);
    if (isRefusal(value)) return { ...value, field };
    read[field] = value;
  }
  const auto = cell('autoRenew');
  if (auto !== '') {
    const value = settingOf(auto);
    if (isRefusal(value)) return { ...value, field: 'autoRenew' };
    read.setting = value;
  }
  const purpose = cell('purpose') === '' ? null : purposeOf(cell('purpose'));
  if (purpose) read.purpose = purpose;
  if (cell('nameServers') !== '')
    read.nameServers = cell('nameServers')
      .toLowerCase()
      .split(/[\s,;|]+/)
      .filter((host) => host !== '');
  for (const field of ['account', 'tags', 'notes'] as const) {
    const bad = refuseText(cell(field), field);
    if (bad) return bad;
    if (field !== 'notes' && !isOneLine(cell(field)))
      return refuse('text-several-lines', `The cell for ${field} has several lines. Write it in one.`, field);
  }
  if (cell('tags') !== '') read.tags = list(cell('tags')).sort();
  const texts = ['account', 'notes'] as const;
  for (const field of texts) {
    const text = cell(field);
    if (text.length > MOST_LETTERS || text.includes('\0'))
      return refuse('text-too-long', `The text under ${field} is too long: ${MOST_LETTERS} letters at most.`, field);
    if (text !== '') read[field] = text;
  }
  return { name, ...read };
}
