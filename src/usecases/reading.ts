import { setTimeout as wait } from 'node:timers/promises';
import { hasReplayed, selectPosition } from '@/database/replica';
import type { Deps } from './deps';

/** So long a copy is waited for that is just behind; then the primary is asked. */
const WAITS_MS = [0, 4, 12, 34];
/** How long the primary is waited for before what is shown to buyers comes from the copy as it is. */
const LONGEST_PRIMARY_MS = 2000;

/**
 * The dependencies by which something is read: from the copy (`READ_DATABASE_URL`), where that holds everything that had been written when
 * this was asked, so that whoever reads after a change reads that change; else from the primary. With `orAsItIs` the copy is read also while
 * the primary cannot be asked: for what is shown to buyers, who would else see nothing.
 */
export async function reading<D extends Deps>(deps: D, { orAsItIs = false } = {}): Promise<D> {
  const { reads } = deps;
  if (!reads) return deps;
  const copied = { ...deps, database: reads };
  const position = await Promise.race([
    selectPosition(deps.database).catch(() => null),
    wait(LONGEST_PRIMARY_MS, null, { ref: false }),
  ]);
  if (position === null) return orAsItIs ? copied : deps;
  for (const ms of WAITS_MS) {
    if (ms > 0) await wait(ms);
    const has = await hasReplayed(reads, position).catch((error: unknown) => {
      deps.log.warn({ err: error }, 'the copy to read from does not answer');
      return null;
    });
    if (has === null) return deps;
    if (has) return copied;
  }
  return deps;
}
