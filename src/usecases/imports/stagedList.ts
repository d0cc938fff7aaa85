import type { Amount } from '@/core/money';
import type { DomainName } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayOf, formatDay, type Instant, type TermEnd } from '@/core/time';
import type { PackedRows } from '@/database/copyIn';
import { packStaged, type StagedColumns } from '@/database/stageRows';
import type { TableRow } from '@/formats/csv/readTable';
import type { Fact, PortfolioReader, PortfolioRow, ReadRows } from '@/formats/portfolio/readRows';

type Column = keyof StagedColumns;
type Cell<C extends Column> = NonNullable<StagedColumns[C]>[number];
/** What of a fact is put into a column. */
type Part<Said> = { [C in Column]: readonly [C, (said: Said) => Cell<C>] }[Column];

const as = <T>(said: T): T => said;

/** Where the facts of a list are put beside the ledger; the account of a row that names none is the list's. */
const PARTS: { readonly [F in Exclude<Fact, 'account'>]: readonly Part<NonNullable<PortfolioRow[F]>>[] } = {
  registered: [
    ['registered', (end) => end.at],
    ['registered_day', isDay],
  ],
  expires: [
    ['term_end', (end) => end.at],
    ['term_end_day', isDay],
  ],
  setting: [['setting', as]],
  lock: [['lock', as]],
  privacy: [['privacy', as]],
  nameServers: [['name_servers', as]],
  tags: [['tags', as]],
  purpose: [['purpose', as]],
  neverLost: [['never_lost', as]],
  paid: [
    ['paid_minor', minor],
    ['paid_currency', currency],
  ],
  boughtOn: [['paid_on', as]],
  renewalPrice: [
    ['renewal_minor', minor],
    ['renewal_currency', currency],
  ],
  asking: [
    ['asking_minor', minor],
    ['asking_currency', currency],
  ],
  notes: [['notes', as]],
};

function isDay({ precision }: TermEnd): boolean {
  return precision === 'day';
}
function minor(amount: Amount): number {
  return amount.minor;
}
function currency(amount: Amount): string {
  return amount.currency;
}

/** No more of a cell is kept of a refused row, so that it can be mended. */
const MOST_LETTERS = 4000;
const inputOf = ({ cells }: TableRow) => JSON.stringify(cells.map((cell) => cell.slice(0, MOST_LETTERS)));

/** Columns of a few rows, as they are put beside the ledger. */
type Piece = { [C in Column]?: readonly Cell<C>[] };

/**
 * A list of names as it is read, some rows at a time, and put beside the ledger in pieces. A name that stands in it twice is refused
 * the second time. `accountLabel`: the account of rows that name none.
 */
export class StagedList {
  readonly #id: string;
  readonly #read: PortfolioReader;
  readonly #accountLabel: string | null;
  readonly #first = new Map<string, TableRow>();
  #pieces: Piece[] = [];
  #rows = 0;

  constructor(id: string, read: PortfolioReader, accountLabel: string | null) {
    this.#id = id;
    this.#read = read;
    this.#accountLabel = accountLabel;
  }

  /** Reads the next rows. */
  add(rows: readonly TableRow[]): void {
    const read = this.#read(rows);
    const refusals = rows.map((row, i) => this.#refuse(row, read, i));
    this.#pieces.push({ import_id: rows.map(() => this.#id), ...told(rows, read, refusals, this.#accountLabel) });
    this.#rows += rows.length;
  }

  /** What has been read since it was asked last, packed. */
  pack(): PackedRows<Column> {
    // One mapping reads them all: each piece has the columns of the first.
    const columns = Object.keys(this.#pieces[0] ?? {}) as Column[];
    const whole = columns.map((column) => [
      column,
      ([] as unknown[]).concat(...this.#pieces.map((piece) => piece[column] ?? [])),
    ]);
    const packed = packStaged(Object.fromEntries(whole) as StagedColumns, this.#rows);
    this.#pieces = [];
    this.#rows = 0;
    return packed;
  }

  #refuse(row: TableRow, read: ReadRows, i: number): Refusal | null {
    const name = read.names[i] as DomainName | Refusal;
    if (isRefusal(name)) return name;
    const before = this.#first.get(name.ascii);
    if (!before) {
      this.#first.set(name.ascii, row);
      return null;
    }
    return twice(before.line, endOf(this.#read([before]), 0), endOf(read, i));
  }
}

/** What rows tell: those that are taken what was read of them, the others only why they are refused. */
function told(
  rows: readonly TableRow[],
  { names, facts, lost }: ReadRows,
  refusals: readonly (Refusal | null)[],
  accountLabel: string | null,
): Piece {
  const taken = <V, T>(values: readonly V[], of: (value: NonNullable<V>, row: number) => T) =>
    values.map((value, i) => (refusals[i] || value === undefined || value === null ? undefined : of(value, i)));
  const domains = names as readonly DomainName[];
  const columns: { [column: string]: readonly unknown[] } = {
    line: rows.map(({ line }) => line),
    outcome: refusals.map((refusal) => (refusal ? 'refused' : 'new')),
    input: refusals.map((refusal, i) => refusal && inputOf(rows[i] as TableRow)),
    code: refusals.map((refusal) => refusal?.code),
    message: refusals.map((refusal, i) => refusal?.message ?? noteOn(domains[i], lost[i])),
    ascii: taken(domains, ({ ascii }) => ascii),
    unicode: taken(domains, ({ unicode }) => unicode),
    ending: taken(domains, ({ ending }) => ending),
    account: taken(domains, (_, i) => facts.account?.[i] ?? accountLabel),
  } satisfies Piece;
  for (const [fact, parts] of Object.entries(PARTS) as [Fact, readonly [Column, (said: unknown) => unknown][]][]) {
    const values: readonly unknown[] | undefined = facts[fact];
    if (values) for (const [column, of] of parts) columns[column] = taken(values, of);
  }
  return columns as Piece;
}

const endOf = ({ facts }: ReadRows, row: number): Instant | null => facts.expires?.[row]?.at ?? null;
const noteOn = (name: DomainName | undefined, lost: readonly string[] = []) =>
  [name?.warning, ...lost].filter(Boolean).join(' ') || null;

/** A name stands in the list twice: the first row counts, unless the person takes the other. `end` and `otherEnd`: what each says of its term. */
export function twice(line: number, end: Instant | null, otherEnd: Instant | null): Refusal {
  const day = (at: Instant | null) => (at === null ? 'no end' : formatDay(dayOf(at)));
  return refuse(
    'name-twice',
    end === otherEnd
      ? `This name stands on line ${line} already. Line ${line} counts, unless you take this one.`
      : `This name stands on line ${line} already, there with ${day(end)}, here with ${day(otherEnd)}. Line ${line} counts, unless you take this one.`,
  );
}
