import type { NumberStyle } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { DATE_ORDERS } from '@/core/time';
import { countRefusals, selectNotes, surveyRows } from '@/database/importRows';
import { deleteImport, type ImportOptions } from '@/database/imports';
import { selectSettings } from '@/database/settings';
import { areAmountsOpen, isOpen, type OpenQuestion, openQuestions } from '@/formats/portfolio/columns';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { chooseRows, importRows } from './preview';
import { readImport, takeIn } from './readImport';
import { writeImport } from './writeImport';

export interface WholeImport {
  readonly content: Uint8Array;
  readonly account: string | null;
  /** `day`, `month` or `year`: what stands first in dates that leave it open. */
  readonly dateOrder: string | null;
  /** `point` or `comma`: what stands before the cents in amounts that leave it open. */
  readonly decimalMark?: string | null;
  /** Names that the ledger has in another account have moved: else they are told and left as they are. */
  readonly takeMoves?: boolean;
  readonly fullList: boolean;
  readonly allowPrivateEndings: boolean;
  readonly dryRun: boolean;
}

/** What came of an import that nobody previewed. */
export interface ImportResult {
  readonly new: number;
  readonly changed: number;
  readonly unchanged: number;
  /** Names that the ledger has in another account. */
  readonly conflicts: number;
  readonly missing: number;
  /** The first thousand refused rows; the rest is summed. */
  readonly refused: readonly {
    readonly line: number;
    readonly input: string;
    readonly code: string;
    readonly message: string;
  }[];
  readonly refusedTotal: number;
  /** What was left out of rows that were taken, or is worth a look: the first thousand. */
  readonly notes: readonly { readonly line: number; readonly name: string; readonly message: string }[];
  /** How many rows were refused for which reason. */
  readonly refusedByCode: Readonly<Record<string, number>>;
}

const MOST_TOLD = 1000;
/** So much is told of what a refused row said. */
const MOST_INPUT = 500;

/** Reads and writes a list in one go, for other programs: every row that can be taken is taken, the rest are told. */
export const importAtOnce = command(
  'importAtOnce',
  async (deps: Deps, request: WholeImport): Promise<ImportResult | Refusal> => {
    const { dateOrder, decimalMark = null } = request;
    if (dateOrder !== null && !['day', 'month', 'year'].includes(dateOrder))
      return refuse('query-invalid', 'dateOrder is day, month or year.', 'dateOrder');
    if (decimalMark !== null && decimalMark !== 'point' && decimalMark !== 'comma')
      return refuse('query-invalid', 'decimalMark is point or comma.', 'decimalMark');
    const { numberStyle } = await selectSettings(deps.database);
    const begun = await takeIn(deps, {
      content: request.content,
      source: 'another program',
      isReadAtOnce: true,
      accountLabel: request.account,
    });
    if (isRefusal(begun)) return begun;
    const { id } = begun.row;
    const options = optionsOf(begun.row.options, request, numberStyle);
    const open = openQuestions(options.mapping, numberStyle)[0];
    const read = open ? questionOf(open) : await readImport(deps, id, options, begun.source);
    if (isRefusal(read)) {
      await deleteImport(deps.database, id);
      return read;
    }
    if (request.takeMoves) await chooseRows(deps, id, 'conflict', null, true);
    const written = request.dryRun ? null : await writeImport(deps, id);
    if (isRefusal(written)) return written;
    const { counts, isNoted } = written ?? (await surveyRows(deps.database, id));
    const isRefused = counts.refused.rows > 0;
    const [refused, refusedByCode, notes] = await Promise.all([
      isRefused ? importRows(deps, id, 'refused', MOST_TOLD, 0) : [],
      isRefused ? countRefusals(deps.database, id) : {},
      isNoted ? selectNotes(deps.database, id, MOST_TOLD) : [],
    ]);
    // Nobody comes back to a trial: its text and rows go at once.
    if (request.dryRun) await deleteImport(deps.database, id);
    return {
      new: counts.new.rows,
      changed: counts.changed.rows,
      unchanged: counts.unchanged.rows,
      conflicts: counts.conflict.rows,
      missing: counts.missing.rows,
      refused: refused.map(({ line, input, code, message }) => ({
        line,
        input: (JSON.parse(input ?? '[]') as string[]).join(',').slice(0, MOST_INPUT),
        code: code ?? '',
        message: message ?? '',
      })),
      refusedTotal: counts.refused.rows,
      notes,
      refusedByCode,
    };
  },
);

/** What has to be said before a list can be read, as the parameter that says it. */
function questionOf({ column, about }: OpenQuestion): Refusal {
  return about === 'dates'
    ? refuse(
        'dates-ambiguous',
        `The dates under “${column.heading}” can be read in more than one way. Send dateOrder=day, dateOrder=month or dateOrder=year.`,
        'dateOrder',
      )
    : refuse(
        'amounts-ambiguous',
        `The amounts under “${column.heading}” can be read two ways. Send decimalMark=point or decimalMark=comma.`,
        'decimalMark',
      );
}

function optionsOf(proposed: ImportOptions, request: WholeImport, office: NumberStyle): ImportOptions {
  const order = DATE_ORDERS.find((one) => one.startsWith(request.dateOrder ?? 'none')) ?? null;
  const style: NumberStyle | null =
    request.decimalMark === 'point' ? '1,234.50' : request.decimalMark === 'comma' ? '1.234,50' : null;
  // A remembered answer is not taken here: nobody looks at the mapping, so the caller says it each time.
  const columns = proposed.mapping.columns.map((column) => ({
    ...column,
    order: isOpen(column) ? order : null,
    numbers: areAmountsOpen(column, office) ? style : null,
  }));
  return {
    ...proposed,
    mapping: { ...proposed.mapping, columns },
    fullList: request.fullList,
    allowPrivateEndings: request.allowPrivateEndings,
  };
}
