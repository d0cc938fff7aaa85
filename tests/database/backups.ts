import type { Refusal } from '@/core/refusal';
import { makeBackup, restoreBackup } from '@/usecases/backup/backup';
import type { Deps } from '@/usecases/deps';
import { unrefused } from './unrefused';

/** A whole backup as one text. */
export async function backupText(deps: Deps): Promise<string> {
  const pieces: string[] = [];
  for await (const piece of unrefused(await makeBackup(deps))) pieces.push(piece.toString());
  return pieces.join('');
}

/** Restores a backup that is held as one text. */
export function restoreText(deps: Deps, text: string): Promise<number | Refusal> {
  async function* pieces() {
    yield new TextEncoder().encode(text);
  }
  return restoreBackup(deps, pieces());
}
