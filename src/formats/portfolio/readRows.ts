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
import { remembering } from './remembering';
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

/** What a list can say of a name. */
export type Fact = Exclude<keyof PortfolioRow, 'name'>;

/** Rows as they were read, fact by fact, each from the first of them to the last: very many are read a third quicker so than one by one. */
export interface ReadRows {
  /** The name of each row, or why the row is refused. */
  readonly names: readonly (DomainName | Refusal)[];
  /** What the rows say: a fact for which there is no column is left out, and what a row does not say is `undefined`. */
  readonly facts: { readonly [F in Fact]?: readonly PortfolioRow[F][] };
  /** Why cells of a row were left out, in words: a bad cell loses that cell, not its row. */
  readonly lost: readonly (readonly string[] | undefined)[];
}

/** One row as it was read, with why cells of it were left out. */
export interface ReadRow extends PortfolioRow {
  readonly lost: readonly string[];
}

/** One of several rows that were read. */
export function rowAt({ names, facts, lost }: ReadRows, row: number): ReadRow | Refusal {
  const name = names[row] as DomainName | Refusal;
  if (isRefusal(name)) return name;
  const said = Object.entries(facts).flatMap(([fact, values]) =>
    values[row] === undefined ? [] : [[fact, values[row]]],
  );
  return { name, ...Object.fromEntries(said), lost: lost[row] ?? [] };
}

interface CellContext {
  readonly column: ColumnReading;
  readonly rules: RowRules;
  /** The currency that stands beside an amount. */
  readonly code: string | null;
}

const NOTHING = /^(n\/?a|-|–|none|null|0000-00-00.*)$/i;

const date = (text: string, { column }: CellContext) =>
  NOTHING.test(text) ? undefined : readDate(text, orderOf(column));

const day = (text: string, context: CellContext) => {
  const found = date(text, context);
  return found === undefined || isRefusal(found) ? found : dayOf(found.at);
};

const money = (text: string, { column, rules, code }: CellContext) =>
  NOTHING.test(text)
    ? undefined
    : readAmount(text, { stated: code, usual: rules.currency, style: numbersIn(column, rules.numberStyle) });

const hosts = (text: string) =>
  text
    .toLowerCase()
    .split(/[\s,;|]+/)
    .filter((host) => host !== '');

/** A fact of a row, and how its cells are read: what they say, nothing, or why they cannot be read. */
type CellReader = {
  [F in keyof PortfolioRow]-?: readonly [
    F,
    (text: string, context: CellContext) => PortfolioRow[F] | undefined | Refusal,
  ];
}[keyof PortfolioRow];

/** How the cells of each field are read; what of them cannot be is told in this order. */
const CELLS = {
  registered: ['registered', date],
  expires: ['expires', date],
  boughtOn: ['boughtOn', day],
  pricePaid: ['paid', money],
  renewalPrice: ['renewalPrice', money],
  askingPrice: ['asking', money],
  lock: ['lock', (text) => switchOf(text, 'lock')],
  privacy: ['privacy', (text) => switchOf(text, 'privacy')],
  neverLost: ['neverLost', (text) => switchOf(text, 'never to be lost')],
  autoRenew: ['setting', settingOf],
  purpose: ['purpose', (text) => purposeOf(text) ?? undefined],
  nameServers: ['nameServers', hosts],
  account: ['account', (text) => refuseCell('account', text) ?? text],
  notes: ['notes', (text) => refuseCell('notes', text) ?? text],
  tags: ['tags', (text) => refuseCell('tags', text) ?? list(text).sort()],
} as const satisfies Partial<Record<PortfolioField, CellReader>>;
type ReadField = keyof typeof CELLS;
const READ_FIELDS = Object.keys(CELLS) as ReadField[];
const isAmount = (field: ReadField) => field === 'pricePaid' || field === 'renewalPrice' || field === 'askingPrice';

/** A column of a list whose cells are read; amounts by the currency beside them too. */
interface ReadColumn {
  readonly fact: Fact;
  readonly isAmount: boolean;
  readonly place: number;
  readonly read: (text: string, code: string) => unknown;
}

/** Reads rows of one list, however many of them at once. */
export type PortfolioReader = (rows: readonly TableRow[]) => ReadRows;

/**
 * A reader of rows by one mapping: it gives what they say, or why one is refused. Only the name decides about a row; of any other
 * cell that cannot be read it is said that it was left out, so that nothing half understood is ever written.
 */
export function portfolioReader(mapping: Mapping, rules: RowRules): PortfolioReader {
  const placeOf = (field: PortfolioField) => mapping.columns.findIndex((column) => column.field === field);
  const columns = READ_FIELDS.flatMap((field): ReadColumn[] => {
    const place = placeOf(field);
    const column = mapping.columns[place];
    if (!column) return [];
    const [fact, read] = CELLS[field];
    const readIn = (code: string) => (text: string) => read(text, { column, rules, code: code || null });
    if (isAmount(field)) {
      const inCurrency = remembering((code: string) => remembering(readIn(code)));
      return [{ fact, isAmount: true, place, read: (text, code) => inCurrency(code)(text) }];
    }
    // Notes are each their own.
    return [{ fact, isAmount: false, place, read: field === 'notes' ? readIn('') : remembering(readIn('')) }];
  });
  const places = { name: placeOf('name'), currency: placeOf('currency') };
  return (rows) => readRows(rows, places, columns, rules);
}

const cellOf = ({ cells }: TableRow, place: number) => undefuse((cells[place] ?? '').trim());

function readRows(
  rows: readonly TableRow[],
  places: { readonly name: number; readonly currency: number },
  columns: readonly ReadColumn[],
  rules: RowRules,
): ReadRows {
  const names = rows.map((row) => parseDomainName(cellOf(row, places.name), rules));
  const codes = rows.map((row) => cellOf(row, places.currency).toUpperCase());
  const isCode = codes.map((code) => code === '' || isCurrency(code));
  // A code that is none says nothing of the currency, and so nothing of the amounts beside it.
  const lost = codes.map((code, i) => (isCode[i] ? undefined : [NO_CURRENCY(code)]));
  const facts: { [fact: string]: unknown[] } = {};
  for (const { fact, isAmount: isMoney, place, read } of columns) {
    facts[fact] = rows.map((row, i) => {
      if (isRefusal(names[i]) || (isMoney && !isCode[i])) return undefined;
      const text = cellOf(row, place);
      const value = text === '' ? undefined : read(text, codes[i] as string);
      if (!isRefusal(value)) return value;
      lost[i] = [...(lost[i] ?? []), value.message];
      return undefined;
    });
  }
  const read = { names, facts: facts as ReadRows['facts'], lost };
  leaveOutMixedTerms(facts, lost);
  return read;
}

/** A term that ends before it begins is none: both days are left out. */
function leaveOutMixedTerms(facts: { [fact: string]: unknown[] }, lost: (readonly string[] | undefined)[]): void {
  const [registered, expires] = [facts.registered, facts.expires] as (TermEnd | undefined)[][];
  for (const [i, begin] of registered?.entries() ?? []) {
    const end = expires?.[i];
    if (!begin || !end || begin.at <= end.at) continue;
    lost[i] = [TERM_MIXED, ...(lost[i] ?? [])];
    (registered as unknown[])[i] = undefined;
    (expires as unknown[])[i] = undefined;
  }
}

const TERM_MIXED = 'The term ends before the name was registered: both days are left out. Check them.';
const NO_CURRENCY = (code: string) =>
  `“${code.slice(0, 20)}” is not a currency code: the amounts beside it are left out. Write USD, EUR, GBP or another of ISO 4217.`;

/** Why a text cannot be taken; `null` where it can. */
function refuseCell(field: 'account' | 'tags' | 'notes', text: string): Refusal | null {
  const bad = refuseText(text, field);
  if (bad) return bad;
  if (field !== 'notes' && !isOneLine(text))
    return refuse('text-several-lines', `The cell for ${field} has several lines. Write it in one.`, field);
  return text.length > MOST_LETTERS
    ? refuse('text-too-long', `The text under ${field} is too long: ${MOST_LETTERS} letters at most.`, field)
    : null;
}
