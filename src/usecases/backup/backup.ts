import { type Refusal, refuse } from '@/core/refusal';
import { formatInstant } from '@/core/time';
import { type BackupTables, insertBackup, isEmptyLedger, selectBackup } from '@/database/backup';
import { bumpRevision } from '@/database/ledger';
import { transaction } from '@/database/pool';
import type { Deps } from '../deps';

/** What a backup file says it is. The version rises when a member changes its meaning. */
const FORMAT = 'name-ledger backup';
const VERSION = 1;

/** The whole ledger as one JSON text; docs/backup.md tells its members. */
export async function makeBackup(deps: Deps): Promise<string> {
  const tables = await selectBackup(deps.database);
  return `{"format":"${FORMAT}","version":${VERSION},"madeAt":"${formatInstant(deps.clock())}","tables":${tables}}`;
}

interface BackupFile {
  readonly format?: unknown;
  readonly version?: unknown;
  readonly tables?: BackupTables;
}

/** Restores a backup into an empty ledger: all of it, or nothing. Answers how many names it held. */
export async function restoreBackup(deps: Deps, text: string): Promise<number | Refusal> {
  const file = read(text);
  if (file?.format !== FORMAT || typeof file.tables !== 'object' || file.tables === null) {
    return refuse(
      'backup-not-read',
      'This is not a backup of Name Ledger. Choose a file that was saved under Back up.',
    );
  }
  if (file.version !== VERSION) {
    return refuse(
      'backup-version',
      `This backup has version ${String(file.version)}; this program reads version ${VERSION}. Use the program that wrote it.`,
    );
  }
  const { tables } = file;
  if (!Object.values(tables).every((rows) => Array.isArray(rows)))
    return refuse('backup-not-read', 'This backup is damaged: a part of it is missing.');
  if (!tables.policies?.some((policy) => (policy as { ending?: string }).ending === '*')) {
    return refuse('backup-not-read', 'This backup is damaged: its generic policy is missing.');
  }
  try {
    return await transaction(deps.database, async (tx) => {
      await bumpRevision(tx);
      if (!(await isEmptyLedger(tx))) {
        return refuse(
          'ledger-not-empty',
          'A backup goes into an empty ledger only. Start one with bin/start --fresh --empty, then restore.',
        );
      }
      await insertBackup(tx, tables);
      return tables.names?.length ?? 0;
    });
  } catch (error) {
    deps.log.warn({ err: error }, 'a backup could not be restored');
    return refuse('backup-not-restored', 'This backup is damaged, and nothing of it was restored. Try another copy.');
  }
}

function read(text: string): BackupFile | null {
  try {
    return JSON.parse(text) as BackupFile | null;
  } catch {
    return null;
  }
}
