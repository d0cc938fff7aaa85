import { selectState, tellState } from '@/database/ledger';
import type { Deps } from './deps';

/**
 * After a change of very many names: has them read where they are kept, then tells the change. Until then whoever asks is answered of the
 * state before it, so that nobody waits; who made the change waits here, and so sees it in whatever is asked next. Other changes are told
 * as they are made. Never fails: the change is made already.
 */
export async function tellChange(deps: Pick<Deps, 'database' | 'thread' | 'isThread' | 'log'>): Promise<void> {
  // Whoever asked this thread for its work does it.
  if (deps.isThread) return;
  try {
    const { revision, told } = await selectState(deps.database);
    if (told < revision) await tellState(deps.database, await readWhereKept(deps, revision));
  } catch (error) {
    deps.log.error({ err: error }, 'a change of many names could not be told');
  }
}

/** Answers the number of the state that was read: without a thread, or where it fails, whoever asks next reads the present one. */
async function readWhereKept({ thread, log }: Pick<Deps, 'thread' | 'log'>, revision: number): Promise<number> {
  if (!thread) return revision;
  try {
    return (await thread.run('readAnew', [], {})) as number;
  } catch (error) {
    log.error({ err: error }, 'the ledger could not be read after a change of many names');
    return revision;
  }
}
