import { randomUUID } from 'node:crypto';
import { setImmediate as nextTurn } from 'node:timers/promises';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { accountsByLabel, selectAccount } from '@/database/accounts';
import { columnInstant } from '@/database/changes';
import {
  compareRows,
  type ImportOptions,
  type ImportRow,
  insertImport,
  moveImport,
  type StagedRow,
  selectImport,
  selectImportContent,
  selectMapping,
  stageRows,
  upsertMapping,
} from '@/database/imports';
import { transaction } from '@/database/pool';
import { selectSettings } from '@/database/settings';
import { decodeText } from '@/formats/csv/decodeText';
import type { TableRow } from '@/formats/csv/readTable';
import { type Mapping, openQuestions, withRemembered } from '@/formats/portfolio/columns';
import { type PortfolioRow, portfolioReader, type RowRules } from '@/formats/portfolio/readRow';
import { readSource } from '@/formats/portfolio/readSource';
import type { Deps } from '../deps';

export type { ImportOptions } from '@/database/imports';

/** The largest file that is taken, in bytes. */
export const LARGEST_FILE = 64 * 1024 * 1024;

export interface NewImport {
  readonly content: Uint8Array;
  /** The file's name, or `pasted`. */
  readonly source: string;
  /** The account of rows that name none: one that exists, or a label for a new one. */
  readonly accountId?: number | null;
  readonly accountLabel?: string | null;
}

/**
 * Takes in a pasted text or a file and proposes how to read it. Nothing of it is written to the ledger before
 * `writeImport`. Refused: too large, empty, unreadable.
 */
export async function beginImport(deps: Deps, request: NewImport): Promise<ImportRow | Refusal> {
  if (request.content.byteLength > LARGEST_FILE) {
    return refuse(
      'file-too-large',
      'This file is larger than 64 MB. Split it, or export fewer columns, and bring the parts one after the other.',
    );
  }
  const source = readSource(decodeText(request.content).text);
  if (isRefusal(source)) return source;
  const at = deps.clock();
  let accountId = request.accountId ?? null;
  const label = request.accountLabel?.trim();
  if (accountId === null && label) {
    const { homeCurrency } = await selectSettings(deps.database);
    accountId = (await accountsByLabel(deps.database, [label], homeCurrency, at)).get(label.toLowerCase()) ?? null;
  }
  const remembered = await selectMapping(deps.database, accountId, headingsOf(source.mapping));
  const row: ImportRow = {
    id: randomUUID(),
    madeAt: at,
    source: request.source.slice(0, 200),
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
  return row;
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
 */
export async function readImport(deps: Deps, id: string, options: ImportOptions): Promise<ImportRow | Refusal> {
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
    const source = readSource(decodeText(await selectImportContent(database, id)).text);
    if (isRefusal(source)) {
      await moveImport(database, id, { status: 'failed', problem: source.message });
      return source;
    }
    const account = options.accountId === null ? null : await selectAccount(database, options.accountId);
    const currency = account?.currency ?? (await selectSettings(database)).homeCurrency;
    const rules: RowRules = { currency, allowPrivateEndings: options.allowPrivateEndings };
    const rows = source.table.rows.slice(options.mapping.hasHeadings ? 1 : 0);
    const readRow = portfolioReader(options.mapping, rules);
    const staged: StagedRow[] = [];
    for (const [i, row] of rows.entries()) {
      staged.push(stage(row, readRow(row)));
      if (i % ROWS_A_TURN === ROWS_A_TURN - 1) {
        await moveImport(database, id, { rowsDone: i + 1 });
        await nextTurn();
      }
    }
    await transaction(database, async (tx) => {
      await stageRows(tx, staged);
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

function stage(row: TableRow, read: PortfolioRow | Refusal): StagedRow {
  const input = JSON.stringify(row.cells.map((cell) => cell.slice(0, 4000)));
  if (isRefusal(read))
    return {
      line: row.line,
      input,
      ascii: null,
      outcome: 'refused',
      code: read.code,
      message: read.message,
      data: null,
    };
  const { name } = read;
  const data = {
    unicode: name.unicode,
    ending: name.ending,
    warning: name.warning,
    account: read.account?.toLowerCase() ?? null,
    accountLabel: read.account ?? null,
    fields: fieldsOf(read),
    paid: read.paid ? { ...read.paid, onDay: read.boughtOn ?? null } : null,
    renewal: read.renewalPrice ?? null,
  };
  return {
    line: row.line,
    input,
    ascii: name.ascii,
    outcome: 'read',
    code: null,
    message: name.warning,
    data,
  };
}

/** What a row says, in columns of the ledger and in the form in which the database compares them. What it does not say is left out. */
function fieldsOf(read: PortfolioRow): Record<string, unknown> {
  const fields: Record<string, unknown> = {};
  if (read.registered)
    Object.assign(fields, {
      registered: columnInstant(read.registered.at),
      registered_day: read.registered.precision === 'day',
    });
  if (read.expires)
    Object.assign(fields, {
      term_end: columnInstant(read.expires.at),
      term_end_day: read.expires.precision === 'day',
    });
  if (read.asking) Object.assign(fields, { asking_minor: read.asking.minor, asking_currency: read.asking.currency });
  const plain = {
    setting: read.setting,
    lock: read.lock,
    privacy: read.privacy,
    name_servers: read.nameServers,
    tags: read.tags,
    purpose: read.purpose,
    never_lost: read.neverLost,
    notes: read.notes,
  };
  for (const [key, value] of Object.entries(plain)) if (value !== undefined) fields[key] = value;
  return fields;
}

const SAMPLE_ROWS = 3;

/** The first rows of an import as they stand in the file, to show beside the mapping. */
export async function importSample(deps: Deps, id: string): Promise<readonly (readonly string[])[]> {
  const source = readSource(decodeText((await selectImportContent(deps.database, id)).subarray(0, 65_536)).text);
  if (isRefusal(source)) return [];
  const start = source.mapping.hasHeadings ? 1 : 0;
  return source.table.rows.slice(start, start + SAMPLE_ROWS).map((row) => row.cells);
}
