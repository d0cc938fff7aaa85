import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { countRefusals } from '@/database/importRows';
import { deleteImport, type ImportOptions } from '@/database/imports';
import type { DateOrder } from '@/formats/csv/dateCells';
import { isOpen, openQuestions } from '@/formats/portfolio/columns';
import type { Deps } from '../deps';
import { importRows, importSummary } from './preview';
import { readImport, takeIn } from './readImport';
import { writeImport } from './writeImport';

export interface WholeImport {
  readonly content: Uint8Array;
  readonly account: string | null;
  /** `day` or `month`: what stands first in dates that leave it open. */
  readonly dateOrder: string | null;
  readonly fullList: boolean;
  readonly allowPrivateEndings: boolean;
  readonly dryRun: boolean;
}

/** What came of an import that nobody previewed. */
export interface ImportResult {
  readonly new: number;
  readonly changed: number;
  readonly unchanged: number;
  readonly missing: number;
  /** The first thousand refused rows; the rest is summed. */
  readonly refused: readonly {
    readonly line: number;
    readonly input: string;
    readonly code: string;
    readonly message: string;
  }[];
  readonly refusedTotal: number;
  /** How many rows were refused for which reason. */
  readonly refusedByCode: Readonly<Record<string, number>>;
}

const MOST_TOLD = 1000;
/** So much is told of what a refused row said. */
const MOST_INPUT = 500;

/** Reads and writes a list in one go, for other programs: every row that can be taken is taken, the rest are told. */
export async function importAtOnce(deps: Deps, request: WholeImport): Promise<ImportResult | Refusal> {
  if (request.dateOrder !== null && request.dateOrder !== 'day' && request.dateOrder !== 'month') {
    return refuse('query-invalid', 'dateOrder is day or month.', 'dateOrder');
  }
  const begun = await takeIn(deps, {
    content: request.content,
    source: 'another program',
    accountLabel: request.account,
  });
  if (isRefusal(begun)) return begun;
  const { id } = begun.row;
  const options = optionsOf(begun.row.options, request);
  const open = openQuestions(options.mapping)[0];
  const read = open
    ? refuse(
        'dates-ambiguous',
        `The dates under “${open.heading}” can be read two ways. Send dateOrder=day or dateOrder=month.`,
        'dateOrder',
      )
    : await readImport(deps, id, options, begun.source);
  if (isRefusal(read)) {
    await deleteImport(deps.database, id);
    return read;
  }
  const summary = await importSummary(deps, id);
  if (isRefusal(summary)) return summary;
  const refused = await importRows(deps, id, 'refused', MOST_TOLD, 0);
  const refusedByCode = await countRefusals(deps.database, id);
  // Nobody comes back to a trial: its text and rows go at once.
  if (request.dryRun) await deleteImport(deps.database, id);
  else {
    const written = await writeImport(deps, id);
    if (isRefusal(written)) return written;
  }
  const { counts } = summary;
  return {
    new: counts.new.rows,
    changed: counts.changed.rows,
    unchanged: counts.unchanged.rows,
    missing: counts.missing.rows,
    refused: refused.map(({ line, input, code, message }) => ({
      line,
      input: (JSON.parse(input ?? '[]') as string[]).join(',').slice(0, MOST_INPUT),
      code: code ?? '',
      message: message ?? '',
    })),
    refusedTotal: counts.refused.rows,
    refusedByCode,
  };
}

function optionsOf(proposed: ImportOptions, request: WholeImport): ImportOptions {
  const order: DateOrder | null =
    request.dateOrder === 'day' ? 'day first' : request.dateOrder === 'month' ? 'month first' : null;
  // A remembered order is not taken here: nobody looks at the mapping, so the caller says it each time.
  const columns = proposed.mapping.columns.map((column) => ({ ...column, order: isOpen(column) ? order : null }));
  return {
    ...proposed,
    mapping: { ...proposed.mapping, columns },
    fullList: request.fullList,
    allowPrivateEndings: request.allowPrivateEndings,
  };
}
