import { AsyncLocalStorage } from 'node:async_hooks';

/** Shared by every bundle of a process, so it hangs on the global. */
const ACTING = Symbol.for('name-ledger.acting');
const shared = globalThis as { [ACTING]?: AsyncLocalStorage<string> };
shared[ACTING] ??= new AsyncLocalStorage();

/** Runs `work` so that what its transactions write stands under the name of who is at work. */
export function actingAs<T>(name: string, work: () => T): T {
  return (shared[ACTING] as AsyncLocalStorage<string>).run(name, work);
}

/** Who is at work, by name; `undefined` where nobody is who is set up. */
export function actingName(): string | undefined {
  return shared[ACTING]?.getStore();
}
