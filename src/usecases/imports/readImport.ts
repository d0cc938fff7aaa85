import { randomUUID } from 'node:crypto';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { formatInstant } from '@/core/time';
import { accountsByLabel, selectAccount } from '@/database/accounts';
import { clearRows, compareRows, type StagedRow, stageRows } from '@/database/importRows';
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
import { decodeText } from '@/formats/csv/decodeText';
import type { TableRow } from '@/formats/csv/readTable';
import { type Mapping, openQuestions, withRemembered } from '@/formats/portfolio/columns';
import { type PortfolioRow, portfolioReader, type RowRules } from '@/formats/portfolio/readRow';
import { type PortfolioSource, readSource } from '@/formats/portfolio/readSource';
import type { Deps } from '../deps';
import { LARGEST_FILE, MOST_CELLS, MOST_ROWS } from '../limits';
import { readRequest } from '../validate';
import { BroughtList } from './requests';

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
export async function takeIn(deps: Deps, request: NewImport): Promise<BegunImport | Refusal> {
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
  const source = readSource(decodeText(request.content).text, { rows: MOST_ROWS, cells: MOST_CELLS });
  if (isRefusal(source)) return source;
  const at = deps.clock();
  let accountId = asked.accountId ?? null;
  const label = asked.accountLabel;
  if (accountId === null && label) {
    const { homeCurrency } = await selectSettings(deps.database);
    accountId = (await accountsByLabel(deps.database, [label], homeCurrency, at)).get(label.toLowerCase()) ?? null;
  }
  const remembered = await selectMapping(deps.database, accountId, headingsOf(source.mapping));
  const row: ImportRow = {
    id: randomUUID(),
    madeAt: at,
    source: asked.source,
    options: {
      mapping: withRemembered(source.mapping, remembered),
      accountId,
      fullList: false,
      allowPrivateEndings: false,
    },
    status: 'asking',
    rowsDone: 0,
    rowsTotal: source.table.rows.length - (source.mapping.hasHeadings ? 1 : 0),
    problem: null,
    batchId: null,
  };
  await insertImport(deps.database, row, Buffer.from(request.content));
  return { row, source };
}

/** What identifies the layout of a list: its headings, or the number of its columns. */
function headingsOf(mapping: Mapping): string {
  return mapping.hasHeadings
    ? mapping.columns.map((column) => column.heading.toLowerCase()).join('\t')
    : `${mapping.columns.length} columns`;
}

const ROWS_A_TURN = 2500;

/**
 * Reads every row of an import by `options` and compares it with the ledger. Refused while a date column is open. The
 * mapping is remembered for the account. Progress is kept in the import, so that it may be left and returned to.
 * `begun` is the text as a table, where the caller holds it already.
 */
export async function readImport(
  deps: Deps,
  id: string,
  options: ImportOptions,
  begun: PortfolioSource | null = null,
): Promise<ImportRow | Refusal> {
  const { database } = deps;
  const found = await selectImport(database, id);
  if (!found) return refuse('import-unknown', 'This import is no longer there. Bring the list again.');
  if (!options.mapping.columns.some((column) => column.field === 'name')) {
    return refuse('no-name-column', 'Say which column holds the names.', 'mapping');
  }
  const open = openQuestions(options.mapping);
  if (open.length > 0) {
    await moveImport(database, id, { status: 'asking', options }, ['asking', 'ready', 'failed']);
    return refuse(
      'dates-ambiguous',
      `Say whether “${open[0]?.heading || 'the date column'}” writes the day or the month first.`,
      'mapping',
    );
  }
  if (!(await moveImport(database, id, { status: 'reading', rowsDone: 0, options }, ['asking', 'ready', 'failed']))) {
    return refuse('import-busy', 'This import is being read or has been written already.');
  }
  try {
    const source = begun ?? readSource(decodeText(await selectImportContent(database, id)).text);
    if (isRefusal(source)) {
      await moveImport(database, id, { status: 'failed', problem: source.message });
      return source;
    }
    const account = options.accountId === null ? null : await selectAccount(database, options.accountId);
    const currency = account?.currency ?? (await selectSettings(database)).homeCurrency;
    const rules: RowRules = { currency, allowPrivateEndings: options.allowPrivateEndings };
    const rows = source.table.rows.slice(options.mapping.hasHeadings ? 1 : 0);
    await clearRows(database, id);
    await readRows(rows, portfolioReader(options.mapping, rules), async (read, rowsDone) => {
      await transaction(database, (tx) => stageRows(tx, id, read));
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
}

/**
 * Reads rows a few thousand at a time and hands them to `store`, which works while the next are read. A name that stands in
 * the list twice is refused the second time.
 */
async function readRows(
  rows: readonly TableRow[],
  readRow: ReturnType<typeof portfolioReader>,
  store: (read: readonly StagedRow[], rowsDone: number) => Promise<void>,
): Promise<void> {
  const lines = new Map<string, number>();
  const staged = (row: TableRow): StagedRow => {
    const read = readRow(row);
    if (isRefusal(read)) return refusedRow(row, read);
    const first = lines.get(read.name.ascii);
    if (first !== undefined) {
      const message = `This name stands on line ${first} already. Take one of the two out.`;
      return refusedRow(row, refuse('name-twice', message));
    }
    lines.set(read.name.ascii, row.line);
    return stagedRow(row, read);
  };
  let storing = Promise.resolve();
  for (let start = 0; start < rows.length; start += ROWS_A_TURN) {
    const read = rows.slice(start, start + ROWS_A_TURN).map(staged);
    await storing;
    storing = store(read, start + read.length);
  }
  await storing;
}

function refusedRow(row: TableRow, { code, message }: Refusal): StagedRow {
  const input = JSON.stringify(row.cells.map((cell) => cell.slice(0, 4000)));
  return { line: row.line, outcome: 'refused', input, code, message };
}

function stagedRow({ line }: TableRow, read: PortfolioRow): StagedRow {
  const { name, registered, expires, asking, paid, renewalPrice } = read;
  return {
    line,
    outcome: 'new',
    ascii: name.ascii,
    message: name.warning,
    unicode: name.unicode,
    ending: name.ending,
    account: read.account,
    registered: registered && formatInstant(registered.at),
    registered_day: registered && registered.precision === 'day',
    term_end: expires && formatInstant(expires.at),
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

const SAMPLE_ROWS = 3;

/** The first rows of an import as they stand in the file, to show beside the mapping. */
export async function importSample(deps: Deps, id: string): Promise<readonly (readonly string[])[]> {
  const source = readSource(decodeText((await selectImportContent(deps.database, id)).subarray(0, 65_536)).text);
  if (isRefusal(source)) return [];
  const start = source.mapping.hasHeadings ? 1 : 0;
  return source.table.rows.slice(start, start + SAMPLE_ROWS).map((row) => row.cells);
}
