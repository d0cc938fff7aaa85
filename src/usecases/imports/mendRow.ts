import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { selectStaged, takeOutRows } from '@/database/importRows';
import { type ImportRow, selectImport } from '@/database/imports';
import { transaction } from '@/database/pool';
import { selectSettings } from '@/database/settings';
import { packRows, stageRows } from '@/database/stageRows';
import { portfolioReader } from '@/formats/portfolio/readRow';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { readRequest } from '../validate';
import { rulesOf } from './readImport';
import { MendedRow } from './requests';
import { stagedRow, twice } from './stagedRow';

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
      const row = stagedRow(id, { line, cells }, read, options.accountLabel ?? null);
      await stageRows(tx, packRows([row]), options.accountId);
    });
    return (await selectImport(database, id)) as ImportRow;
  },
);
