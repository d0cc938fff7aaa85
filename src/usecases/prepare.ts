import { randomBytes } from 'node:crypto';
import { failInterruptedImports } from '@/database/imports';
import type { Database } from '@/database/pool';
import { selectSettings, upsertSettings } from '@/database/settings';

/** Readies a migrated database for use: settings that must exist, and work that an earlier end cut short. */
export async function prepareLedger(database: Database): Promise<void> {
  const settings = await selectSettings(database);
  if (settings.calendarKey === '') {
    await upsertSettings(database, { calendarKey: randomBytes(18).toString('base64url'), zone: Intl.DateTimeFormat().resolvedOptions().timeZone });
  }
  await failInterruptedImports(database);
}
