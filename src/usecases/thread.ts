import pLimit from 'p-limit';
import Tinypool from 'tinypool';
import type { Asker } from '@/core/people';
import type { BeingAnswered } from './beingAnswered';
import { type Cause, handedOn, requestId } from './log';

/** Something that computes elsewhere than where requests are answered. */
export interface Thread {
  /** Whoever asks is held to the same role there as here. */
  run(name: string, args: readonly unknown[], asker: Asker): Promise<unknown>;
}

/** What comes back from a thread. */
export type Outcome = { readonly done: unknown } | { readonly failed: Cause };

/** What failed in a thread, with the code that it had there. */
class FailedThere extends Error {
  readonly code: unknown;

  constructor(cause: Cause) {
    super(cause.message, { cause: cause.cause });
    this.name = cause.type;
    this.code = cause.code;
    this.stack = `${cause.type}: ${cause.message}\n${cause.stack ?? ''}`;
  }
}

function resultOf(outcome: Outcome): unknown {
  if ('failed' in outcome) throw new FailedThere(outcome.failed);
  return outcome.done;
}

/** Long work took longer than anyone waits for it, and was ended. */
class TookTooLong extends Error {
  constructor() {
    super('it took longer than two minutes and was ended');
    this.name = 'TookTooLong';
  }
}

/** By name: the thread is opened by the server, whose modules are not those of the pages. */
export const tookTooLong = (error: unknown): boolean => error instanceof Error && error.name === 'TookTooLong';

const LONG_MS = 120_000;
/** More waiting questions than this are turned away: their askers have gone by the time it is their turn. */
const MOST_WAITING = 2000;

/**
 * Opens the threads of this process, from the built program at `path`: one that answers questions about the ledger, many at
 * once, and one for `long` work, which is ended after two minutes, and lets `others` go first.
 */
export function openThread(path: string, long: ReadonlySet<string>, others: BeingAnswered): Thread {
  const options = { filename: path, minThreads: 1, maxThreads: 1, idleTimeout: 600_000, useAtomics: false };
  const quick = new Tinypool({ ...options, concurrentTasksPerWorker: 64, maxQueue: MOST_WAITING });
  const slow = new Tinypool({ ...options, minThreads: 0, concurrentTasksPerWorker: 1 });
  // Its two minutes begin when it is its turn, not while it waits for another's.
  const turn = pLimit(1);
  return {
    async run(name, args, asker) {
      const task = { name, args, requestId: requestId() ?? '', asker, others: others.memory };
      handedOn();
      if (!long.has(name)) return resultOf((await quick.run(task)) as Outcome);
      return turn(async () => {
        const signal = AbortSignal.timeout(LONG_MS);
        const outcome = await slow.run(task, { signal }).catch((error: unknown) => {
          throw signal.aborted ? new TookTooLong() : error;
        });
        return resultOf(outcome as Outcome);
      });
    },
  };
}
