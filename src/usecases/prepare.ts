import { failInterruptedImports } from '@/database/imports';
import type { Database } from '@/database/pool';

/** Readies a migrated database for use: takes note of work that an earlier end cut short. */
export async function prepareLedger(database: Database): Promise<void> {
  await failInterruptedImports(database);
}
