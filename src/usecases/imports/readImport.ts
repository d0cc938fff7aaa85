import { randomUUID } from 'node:crypto';
import type { NumberStyle } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { selectAccount, selectAccounts } from '@/database/accounts';
import type { PackedRows } from '@/database/copyIn';
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
import { type Database, transaction } from '@/database/pool';
import { selectSettings } from '@/database/settings';
import { analyzeStaged, clearRows, type StagedColumns, stageMissing, stageRows } from '@/database/stageRows';
import type { TableRow } from '@/formats/csv/readTable';
import { type Mapping, openQuestions, withRemembered } from '@/formats/portfolio/columns';
import { portfolioReader, type RowRules } from '@/formats/portfolio/readRows';
import type { PortfolioSource } from '@/formats/portfolio/readSource';
import { goOnAmong } from '../beingAnswered';
import type { Deps } from '../deps';
import { LARGEST_FILE } from '../limits';
import { command } from '../people/command';
import { readRequest } from '../validate';
import { type BroughtSource, sourceOf } from './brought';
import { BroughtList } from './requests';
import { StagedList } from './stagedList';

export type { ImportOptions } from '@/database/imports';

export interface NewImport {
  readonly content: Uint8Array;
  /** The file's name, or `pasted`. */
  readonly source: string;
  /** The account of rows that name none: one that exists, or a label for a new one. */
  readonly accountId?: number | null;
  readonly accountLabel?: string | null;
  /** Whoever brings it reads it at once: its text is not kept. */
  readonly isReadAtOnce?: boolean;
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

const NO_TEXT = Buffer.alloc(0);
const TEXT_GONE = refuse('import-unknown', 'The text of this list is not kept. Bring the list again.');

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
  await insertImport(deps.database, row, request.isReadAtOnce ? NO_TEXT : Buffer.from(request.content));
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

const ROWS_A_TURN = 10_000;
/** What is being staged goes on whenever so many have been read. */
const ROWS_A_BREATH = 250;
/** So many pieces are staged at once: comparing those of a list that is known takes longer than reading them. */
const STORED_AT_ONCE = 2;

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
      const read = await keptSource(database, id, wanted.sheet);
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
        const read = await keptSource(database, id, options.sheet ?? null);
        if (isRefusal(read)) {
          await moveImport(database, id, { status: 'failed', problem: read.message });
          return read;
        }
        source = read.source;
      }
      const rules = await rulesOf(deps, options, numberStyle, homeCurrency);
      const rows = source.table.rows.slice(options.mapping.hasHeadings ? 1 : 0);
      await clearRows(database, id);
      const list = new StagedList(id, portfolioReader(options.mapping, rules), options.accountLabel ?? null);
      const goOn = () => goOnAmong(deps.others);
      let rowsDone = 0;
      await readRows(rows, list, goOn, async (read, rowsRead) => {
        await transaction(database, async (tx) => {
          await stageRows(tx, read, options.accountId);
          rowsDone += rowsRead;
          await moveImport(tx, id, { rowsDone });
        });
      });
      await transaction(database, async (tx) => {
        await analyzeStaged(tx);
        if (options.fullList && options.accountId !== null) await stageMissing(tx, id, options.accountId);
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

/** What was brought, as it is kept. */
async function keptSource(database: Database, id: string, sheet: string | null): Promise<BroughtSource | Refusal> {
  const content = await selectImportContent(database, id);
  return content.length === 0 ? TEXT_GONE : sourceOf(content, sheet);
}

const labelled = ({ accountId, accountLabel }: ImportOptions): BroughtList => ({
  source: '',
  ...(accountId === null ? {} : { accountId }),
  ...(accountLabel ? { accountLabel } : {}),
});

/** What rows of an import are read by, besides their columns. */
export async function rulesOf(
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

/** Reads rows a few thousand at a time and hands them to `store`, which works on two pieces while the next is read. */
async function readRows(
  rows: readonly TableRow[],
  list: StagedList,
  goOn: () => Promise<unknown>,
  store: (read: PackedRows<keyof StagedColumns>, rowsRead: number) => Promise<void>,
): Promise<void> {
  const underWay: Promise<void>[] = [];
  try {
    for (let start = 0; start < rows.length; start += ROWS_A_TURN) {
      const end = Math.min(start + ROWS_A_TURN, rows.length);
      for (let at = start; at < end; at += ROWS_A_BREATH) {
        list.add(rows.slice(at, Math.min(at + ROWS_A_BREATH, end)));
        await goOn();
      }
      const packed = list.pack();
      if (underWay.length === STORED_AT_ONCE) await underWay.shift();
      const storing = store(packed, end - start);
      // Whoever awaits it is told why it failed; until then the next rows are read.
      storing.catch(() => undefined);
      underWay.push(storing);
    }
    await Promise.all(underWay);
  } finally {
    // Whoever reads the list again must not meet a piece that is still on its way.
    await Promise.allSettled(underWay);
  }
}
