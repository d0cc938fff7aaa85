import { randomUUID } from 'node:crypto';
import type { NumberStyle } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayOf, formatDay, type Instant } from '@/core/time';
import { selectAccount, selectAccounts } from '@/database/accounts';
import { clearRows, compareRows, type StagedRow, selectStaged, stageRows, takeOutRows } from '@/database/importRows';
import {
  type ImportOptions,
  type ImportRow,
  insertImport,
  moveImport,
  selectImport,
  selectImportContent,
  selectMapping,
  upsertMapping,
} from '@/database/imports';
import { transaction } from '@/database/pool';
import { selectSettings } from '@/database/settings';
import type { TableRow } from '@/formats/csv/readTable';
import { type Mapping, openQuestions, withRemembered } from '@/formats/portfolio/columns';
import { type PortfolioRow, portfolioReader, type ReadRow, type RowRules } from '@/formats/portfolio/readRow';
import type { PortfolioSource } from '@/formats/portfolio/readSource';
import type { Deps } from '../deps';
import { LARGEST_FILE } from '../limits';
import { command } from '../people/command';
import { readRequest } from '../validate';
import { type BroughtSource, sourceOf } from './brought';
import { BroughtList, MendedRow } from './requests';

export type { ImportOptions } from '@/database/imports';

export interface NewImport {
  readonly content: Uint8Array;
  /** The file's name, or `pasted`. */
  readonly source: string;
  /** The account of rows that name none: one that exists, or a label for a new one. */
  readonly accountId?: number | null;
  readonly accountLabel?: string | null;
}

/** An import that has just been taken in, with its text as a table. */
export interface BegunImport {
  readonly row: ImportRow;
  readonly source: PortfolioSource;
}

/**
 * Takes in a pasted text or a file and proposes how to read it. Nothing of it is written to the ledger before
 * `writeImport`. Refused: too large, empty, unreadable.
 */
export async function beginImport(deps: Deps, request: NewImport): Promise<ImportRow | Refusal> {
  const begun = await takeIn(deps, request);
  return isRefusal(begun) ? begun : begun.row;
}

/** Like `beginImport`, for one who reads the import at once. */
export const takeIn = command('takeIn', async (deps: Deps, request: NewImport): Promise<BegunImport | Refusal> => {
  if (request.content.byteLength > LARGEST_FILE) {
    return refuse(
      'file-too-large',
      'This file is larger than 64 MB. Split it, or export fewer columns, and bring the parts one after the other.',
    );
  }
  const asked = await readRequest(BroughtList, {
    // A file may have a long name; its begin says enough.
    source: [...request.source].slice(0, 200).join(''),
    accountId: request.accountId,
    accountLabel: request.accountLabel?.trim(),
  });
  if (isRefusal(asked)) return asked;
  const read = await sourceOf(request.content, null);
  if (isRefusal(read)) return read;
  const at = deps.clock();
  const { accountId, accountLabel } = await accountOf(deps, asked);
  const remembered = await selectMapping(deps.database, accountId, headingsOf(read.source.mapping));
  const row: ImportRow = {
    id: randomUUID(),
    madeAt: at,
    source: asked.source,
    options: {
      mapping: withRemembered(read.source.mapping, remembered),
      accountId,
      accountLabel,
      fullList: false,
      allowPrivateEndings: false,
      ...shownOf(read),
    },
    status: 'asking',
    rowsDone: 0,
    rowsTotal: read.source.table.rows.length - (read.source.mapping.hasHeadings ? 1 : 0),
    problem: null,
    batchId: null,
    undone: false,
  };
  await insertImport(deps.database, row, Buffer.from(request.content));
  return { row, source: read.source };
});

/** The account that is meant by its label, where there is one; a new one is made when the list is written. */
async function accountOf(
  deps: Deps,
  asked: BroughtList,
): Promise<{ accountId: number | null; accountLabel: string | null }> {
  const accountId = asked.accountId ?? null;
  const { accountLabel } = asked;
  if (accountId !== null || !accountLabel) return { accountId, accountLabel: null };
  const known = (await selectAccounts(deps.database)).find(
    ({ label }) => label.toLowerCase() === accountLabel.toLowerCase(),
  );
  return known ? { accountId: known.id, accountLabel: null } : { accountId: null, accountLabel };
}

const SAMPLE_ROWS = 3;
const SAMPLE_LETTERS = 80;

/** What the screen shows of a list besides its rows. */
function shownOf({
  source,
  sheet,
  sheets,
}: BroughtSource): Pick<ImportOptions, 'sheet' | 'sheets' | 'sample' | 'leftOut'> {
  const start = source.mapping.hasHeadings ? 1 : 0;
  const rows = source.table.rows.slice(start, start + SAMPLE_ROWS);
  return {
    sheet,
    ...(sheets ? { sheets } : {}),
    sample: rows.map(({ cells }) => cells.map((cell) => cell.slice(0, SAMPLE_LETTERS))),
    leftOut: source.leftOut,
  };
}

/** What identifies the layout of a list: its headings, or the number of its columns. */
function headingsOf(mapping: Mapping): string {
  return mapping.hasHeadings
    ? mapping.columns.map((column) => column.heading.toLowerCase()).join('\t')
    : `${mapping.columns.length} columns`;
}

const ROWS_A_TURN = 5000;

/** What a person may say of how a list is read. */
export type ReadingOptions = Pick<ImportOptions, 'mapping' | 'accountId' | 'fullList' | 'allowPrivateEndings'> &
  Partial<Pick<ImportOptions, 'accountLabel' | 'sheet' | 'confirmed'>>;

/**
 * Reads every row of an import by `wanted` and compares it with the ledger. Refused while it is open how a column is read. The
 * mapping is remembered for the account. Progress is kept in the import, so that it may be left and returned to.
 * `begun` is what was brought as a table, where the caller holds it already.
 */
export const readImport = command(
  'readImport',
  async (
    deps: Deps,
    id: string,
    wanted: ReadingOptions,
    begun: PortfolioSource | null = null,
  ): Promise<ImportRow | Refusal> => {
    const { database } = deps;
    const found = await selectImport(database, id);
    if (!found) return refuse('import-unknown', 'This import is no longer there. Bring the list again.');
    let options: ImportOptions = { ...found.options, ...wanted };
    if (options.accountLabel) options = { ...options, ...(await accountOf(deps, labelled(options))) };
    let source = begun;
    if (wanted.sheet && wanted.sheet !== found.options.sheet) {
      const read = await sourceOf(await selectImportContent(database, id), wanted.sheet);
      if (isRefusal(read)) return read;
      source = read.source;
      options = { ...options, mapping: read.source.mapping, ...shownOf(read) };
    }
    const { numberStyle, homeCurrency } = await selectSettings(database);
    const refused = refuseMapping(options.mapping, numberStyle);
    if (refused) {
      await moveImport(database, id, { status: 'asking', options }, ['asking', 'ready', 'failed']);
      return refused;
    }
    if (!(await moveImport(database, id, { status: 'reading', rowsDone: 0, options }, ['asking', 'ready', 'failed']))) {
      return refuse('import-busy', 'This import is being read or has been written already.');
    }
    try {
      if (!source) {
        const read = await sourceOf(await selectImportContent(database, id), options.sheet ?? null);
        if (isRefusal(read)) {
          await moveImport(database, id, { status: 'failed', problem: read.message });
          return read;
        }
        source = read.source;
      }
      const rules = await rulesOf(deps, options, numberStyle, homeCurrency);
      const rows = source.table.rows.slice(options.mapping.hasHeadings ? 1 : 0);
      await clearRows(database, id);
      const label = options.accountLabel ?? null;
      await readRows(id, rows, portfolioReader(options.mapping, rules), label, async (read, rowsDone) => {
        await transaction(database, (tx) => stageRows(tx, read));
        await moveImport(database, id, { rowsDone });
      });
      await transaction(database, async (tx) => {
        await compareRows(tx, id, options.accountId, options.fullList);
        await upsertMapping(tx, options.accountId, headingsOf(options.mapping), options.mapping);
        await moveImport(tx, id, { status: 'ready', rowsDone: rows.length, rowsTotal: rows.length });
      });
    } catch (error) {
      await moveImport(database, id, { status: 'failed', problem: 'The list could not be read. Try again.' });
      throw error;
    }
    return (await selectImport(database, id)) as ImportRow;
  },
);

const labelled = ({ accountId, accountLabel }: ImportOptions): BroughtList => ({
  source: '',
  ...(accountId === null ? {} : { accountId }),
  ...(accountLabel ? { accountLabel } : {}),
});

async function rulesOf(
  deps: Deps,
  { accountId, allowPrivateEndings }: ImportOptions,
  numberStyle: NumberStyle,
  homeCurrency: string,
): Promise<RowRules> {
  const account = accountId === null ? null : await selectAccount(deps.database, accountId);
  return { currency: account?.currency ?? homeCurrency, numberStyle, allowPrivateEndings };
}

/** What has to be said of the columns before any row is read; `null` for nothing. */
function refuseMapping(mapping: Mapping, office: NumberStyle): Refusal | null {
  if (!mapping.columns.some((column) => column.field === 'name'))
    return refuse('no-name-column', 'Say which column holds the names.', 'mapping');
  const [open] = openQuestions(mapping, office);
  if (!open) return null;
  const { heading } = open.column;
  return open.about === 'dates'
    ? refuse(
        'dates-ambiguous',
        `Say whether “${heading || 'the date column'}” writes the day, the month or the year first.`,
        'mapping',
      )
    : refuse('amounts-ambiguous', `Say what 1.200 means in “${heading || 'the column of amounts'}”.`, 'mapping');
}

/**
 * Reads one refused row anew, as a person has mended it, or takes it in the place of another row of the same name. Answers the
 * import, or why it is still refused.
 */
export const mendRow = command(
  'mendRow',
  async (deps: Deps, id: string, input: unknown): Promise<ImportRow | Refusal> => {
    const request = await readRequest(MendedRow, input);
    if (isRefusal(request)) return request;
    const { line, cells, isInstead } = request;
    const { database } = deps;
    const found = await selectImport(database, id);
    if (found?.status !== 'ready') return refuse('import-not-ready', 'Read the list first, then mend its rows.');
    const { options } = found;
    const { numberStyle, homeCurrency } = await selectSettings(database);
    const rules = await rulesOf(deps, options, numberStyle, homeCurrency);
    const read = portfolioReader(options.mapping, rules)({ line, cells });
    if (isRefusal(read)) return read;
    const other = await selectStaged(database, id, read.name.ascii);
    if (other && !isInstead) return twice(other.line, other.termEnd, read);
    await transaction(database, async (tx) => {
      await takeOutRows(tx, id, line, other ? read.name.ascii : null);
      await stageRows(tx, [stagedRow(id, { line, cells }, read, options.accountLabel ?? null)]);
      await compareRows(tx, id, options.accountId, false);
    });
    return (await selectImport(database, id)) as ImportRow;
  },
);

/** A name stands in the list twice: the first row counts, unless the person takes the other. */
function twice(line: number, end: number | null, { expires }: PortfolioRow): Refusal {
  const day = (at: number | null) => (at === null ? 'no end' : formatDay(dayOf(at as Instant)));
  const differ = end !== (expires?.at ?? null);
  return refuse(
    'name-twice',
    differ
      ? `This name stands on line ${line} already, there with ${day(end)}, here with ${day(expires?.at ?? null)}. Line ${line} counts, unless you take this one.`
      : `This name stands on line ${line} already. Line ${line} counts, unless you take this one.`,
  );
}

/**
 * Reads rows a few thousand at a time and hands them to `store`, which works while the next are read. A name that stands in
 * the list twice is refused the second time.
 */
async function readRows(
  id: string,
  rows: readonly TableRow[],
  readRow: ReturnType<typeof portfolioReader>,
  accountLabel: string | null,
  store: (read: readonly StagedRow[], rowsDone: number) => Promise<void>,
): Promise<void> {
  const first = new Map<string, TableRow>();
  const staged = (row: TableRow): StagedRow => {
    const read = readRow(row);
    if (isRefusal(read)) return refusedRow(id, row, read);
    const before = first.get(read.name.ascii);
    if (before) return refusedRow(id, row, twice(before.line, endOf(readRow(before)), read));
    first.set(read.name.ascii, row);
    return stagedRow(id, row, read, accountLabel);
  };
  let storing = Promise.resolve();
  for (let start = 0; start < rows.length; start += ROWS_A_TURN) {
    const read = rows.slice(start, start + ROWS_A_TURN).map(staged);
    await storing;
    storing = store(read, start + read.length);
  }
  await storing;
}

const endOf = (read: ReadRow | Refusal) => (isRefusal(read) ? null : (read.expires?.at ?? null));

function refusedRow(id: string, row: TableRow, { code, message }: Refusal): StagedRow {
  const input = JSON.stringify(row.cells.map((cell) => cell.slice(0, 4000)));
  return { import_id: id, line: row.line, outcome: 'refused', input, code, message };
}

function stagedRow(id: string, { line }: TableRow, read: ReadRow, accountLabel: string | null): StagedRow {
  const { name, registered, expires, asking, paid, renewalPrice } = read;
  return {
    import_id: id,
    line,
    outcome: 'new',
    ascii: name.ascii,
    message: [name.warning, ...read.lost].filter(Boolean).join(' ') || null,
    unicode: name.unicode,
    ending: name.ending,
    account: read.account ?? accountLabel,
    registered: registered?.at,
    registered_day: registered && registered.precision === 'day',
    term_end: expires?.at,
    term_end_day: expires && expires.precision === 'day',
    setting: read.setting,
    lock: read.lock,
    privacy: read.privacy,
    name_servers: read.nameServers,
    tags: read.tags,
    purpose: read.purpose,
    never_lost: read.neverLost,
    notes: read.notes,
    asking_minor: asking?.minor,
    asking_currency: asking?.currency,
    paid_minor: paid?.minor,
    paid_currency: paid?.currency,
    paid_on: read.boughtOn,
    renewal_minor: renewalPrice?.minor,
    renewal_currency: renewalPrice?.currency,
  };
}
