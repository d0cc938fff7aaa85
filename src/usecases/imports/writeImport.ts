import { registryFeeOn } from '@/core/lifecycle';
import { type Refusal, refuse } from '@/core/refusal';
import { dayOf } from '@/core/time';
import { accountsByLabel } from '@/database/accounts';
import { NO_ACCOUNT, type StagedSurvey, surveyRows } from '@/database/importRows';
import { moveImport, selectImport, type WrittenCounts } from '@/database/imports';
import { selectRegistryFees } from '@/database/policies';
import { selectSettings } from '@/database/settings';
import { writeStagedRows } from '@/database/writeImport';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';

/** A crash of the database leaves nothing of what was read. */
const CUT_OFF = { status: 'failed', problem: 'interrupted' } as const;

export interface WrittenImport extends WrittenCounts, Pick<StagedSurvey, 'counts' | 'isNoted'> {
  readonly batchId: number | null;
}

/**
 * Writes the rows of an import that are taken, in one transaction: all or nothing. Accounts that the list names and the
 * ledger lacks are made on the way with the usual rules. Written once: a second call is refused.
 */
export const writeImport = command('writeImport', async (deps: Deps, id: string): Promise<WrittenImport | Refusal> => {
  const { database } = deps;
  const row = await selectImport(database, id);
  if (!row) return refuse('import-unknown', 'This import is no longer there. Bring the list again.');
  return changing(deps, async (tx, { at, record }) => {
    if (!(await moveImport(tx, id, { status: 'writing' }, ['ready']))) {
      return refuse(
        'import-not-ready',
        row.status === 'done' ? 'This list has been written already.' : 'Read the list first, then write it.',
      );
    }
    const survey = await surveyRows(tx, id);
    const { counts, accounts, isAccountNeeded, isNoted } = survey;
    if (row.rowsTotal > 0 && Object.values(counts).every(({ rows }) => rows === 0)) {
      await moveImport(tx, id, CUT_OFF);
      return refuse('import-not-ready', 'What was read of this list is gone. Read it again, then write it.');
    }
    const { homeCurrency } = await selectSettings(tx);
    await accountsByLabel(tx, accounts, homeCurrency, at);
    let { accountId } = row.options;
    if (accountId === null && isAccountNeeded) {
      accountId = (await accountsByLabel(tx, [NO_ACCOUNT], homeCurrency, at)).get(NO_ACCOUNT.toLowerCase()) ?? null;
    }
    const batchId = await record(
      'import',
      row.source === 'pasted' ? 'Brought in by pasting' : `Brought in from ${row.source}`,
    );
    const feeMinor = registryFeeOn(await selectRegistryFees(tx), dayOf(at))?.minor ?? 0;
    const confirmed = row.options.confirmed === true;
    const written = await writeStagedRows(tx, id, survey, { batchId, accountId, feeMinor, at, confirmed });
    await moveImport(tx, id, { status: 'done', batchId, options: { ...row.options, written } });
    return { ...written, batchId, counts, isNoted };
  });
});
