import type { ChildProcess } from 'node:child_process';
import { end } from './app';

/** A part of the program that is to run, and how it is known to be well. */
export interface Part {
  readonly name: string;
  /** Starts it; answers its process once it is ready. */
  start(): Promise<ChildProcess>;
  /** Whether it answers. Without it only its end is noticed. */
  isWell?(): Promise<boolean>;
  stop?(child: ChildProcess): Promise<void>;
}

export interface Supervised {
  /** Ends the part and starts it again at once. */
  renew(): void;
  stop(): Promise<void>;
}

export interface Patience {
  /** The wait before the first restart; doubled each time, up to `mostWaitMs`. */
  readonly firstWaitMs: number;
  readonly mostWaitMs: number;
  readonly lookEveryMs: number;
  /** A part that has not answered for so many looks in a row hangs, and is ended. */
  readonly looks: number;
}

const PATIENCE: Patience = { firstWaitMs: 1000, mostWaitMs: 60_000, lookEveryMs: 5000, looks: 4 };

const wait = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));

/** A look that never answers is a look that failed. */
async function answersWithin(look: () => Promise<boolean>, ms: number): Promise<boolean> {
  return Promise.race([look().catch(() => false), wait(ms).then(() => false)]);
}

/**
 * Keeps a part running: what ends is started again, what hangs is ended first, with a longer wait each time it fails soon.
 * `say` hears of each. Resolves once the part runs for the first time.
 */
export async function supervise(
  part: Part,
  say: (message: string) => void,
  patience: Patience = PATIENCE,
): Promise<Supervised> {
  let stopping = false;
  let renewing = false;
  let child = await part.start();
  let wake: () => void = () => undefined;

  const watch = async () => {
    let failures = 0;
    while (!stopping) {
      const since = Date.now();
      const why = await untilItFails(child);
      if (stopping) return;
      if (why === 'hangs') child.kill('SIGKILL');
      failures = renewing ? 0 : Date.now() - since > patience.mostWaitMs ? 1 : failures + 1;
      for (let started = false; !started && !stopping; failures += started ? 0 : 1) {
        const pause = renewing ? 0 : Math.min(patience.mostWaitMs, patience.firstWaitMs * 2 ** (failures - 1));
        const what = renewing
          ? 'is new'
          : why === 'hangs'
            ? 'does not answer'
            : `has ended (${child.signalCode ?? `code ${child.exitCode}`})`;
        say(`${part.name} ${what}; it is started again in ${pause / 1000} s`);
        renewing = false;
        await Promise.race([wait(pause), new Promise<void>((go) => (wake = go))]);
        if (stopping) return;
        try {
          child = await part.start();
          started = true;
          // Told to stop while it was starting: nobody else knows of it yet.
          if (stopping) await (part.stop ?? end)(child);
          say(`${part.name} runs again`);
        } catch (error) {
          say(`${part.name} could not be started: ${error instanceof Error ? error.message : 'no reason given'}`);
        }
      }
    }
  };

  const untilItFails = async (watched: ChildProcess): Promise<'ended' | 'hangs'> => {
    let ended = watched.exitCode !== null || watched.signalCode !== null;
    const gone = new Promise<void>((resolve) => {
      if (ended) return resolve();
      watched.once('exit', () => {
        ended = true;
        resolve();
      });
    });
    let missed = 0;
    while (!ended && !stopping) {
      await Promise.race([gone, wait(patience.lookEveryMs), new Promise<void>((go) => (wake = go))]);
      if (ended || stopping || !part.isWell) continue;
      const well = await answersWithin(() => part.isWell?.() ?? Promise.resolve(true), patience.lookEveryMs);
      missed = well ? 0 : missed + 1;
      if (missed >= patience.looks && !ended && !stopping) return 'hangs';
    }
    return 'ended';
  };

  const watching = watch();
  return {
    renew() {
      renewing = true;
      void end(child);
    },
    async stop() {
      stopping = true;
      wake();
      await (part.stop ?? end)(child);
      await watching;
    },
  };
}

/** Waits for all of them, also when one fails: what is still starting then would be ended by nobody. */
export async function together(works: readonly (Promise<unknown> | null)[]): Promise<void> {
  const failed = (await Promise.allSettled(works)).find(({ status }) => status === 'rejected');
  if (failed?.status === 'rejected') throw failed.reason;
}
