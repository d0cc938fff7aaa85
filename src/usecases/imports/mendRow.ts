import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { selectStaged, takeOutRows } from '@/database/importRows';
import { type ImportRow, selectImport } from '@/database/imports';
import { transaction } from '@/database/pool';
import { selectSettings } from '@/database/settings';
import { stageRows } from '@/database/stageRows';
import { portfolioReader, rowAt } from '@/formats/portfolio/readRows';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { readRequest } from '../validate';
import { rulesOf } from './readImport';
import { MendedRow } from './requests';
import { StagedList, twice } from './stagedList';

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
    const reader = portfolioReader(options.mapping, rules);
    const read = rowAt(reader([{ line, cells }]), 0);
    if (isRefusal(read)) return read;
    const other = await selectStaged(database, id, read.name.ascii);
    if (other && !isInstead) return twice(other.line, other.termEnd, read.expires?.at ?? null);
    await transaction(database, async (tx) => {
      await takeOutRows(tx, id, line, other ? read.name.ascii : null);
      const list = new StagedList(id, reader, options.accountLabel ?? null);
      list.add([{ line, cells }]);
      await stageRows(tx, list.pack(), options.accountId);
    });
    return (await selectImport(database, id)) as ImportRow;
  },
);
