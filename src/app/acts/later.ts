import { after } from 'next/server';
import { type Deps, deps } from '@/usecases/deps';

/**
 * Does work once the answer has gone out, so that nobody waits for a partner. `what` names it in the log when it breaks off: what is
 * left then is carried on by the jobs.
 */
export function later(what: string, work: (deps: Deps) => Promise<unknown>): void {
  const own = deps();
  after(() => work(own).catch((error: unknown) => own.log.error({ err: error }, `${what} was interrupted`)));
}
