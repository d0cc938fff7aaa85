import { logFolder, readTroubles, type Trouble } from '@/connectors/logs/readLogs';

export type { Trouble } from '@/connectors/logs/readLogs';

const MOST = 100;

/** The last warnings and errors of every part, newest first, and where the whole log stands. */
export async function lastTroubles(): Promise<{ readonly folder: string | null; readonly troubles: Trouble[] }> {
  const folder = logFolder();
  return { folder, troubles: folder === null ? [] : await readTroubles(folder, MOST) };
}
