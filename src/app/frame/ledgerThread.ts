import { type Remote, wrap } from 'comlink';
import type { LedgerWorker } from './ledger.worker';
import type { LedgerMeta } from './views';

/** The thread that keeps the ledger, and the first reading of it. */
export interface LedgerThread {
  readonly thread: Worker;
  readonly remote: Remote<LedgerWorker>;
  readonly loaded: Promise<LedgerMeta>;
}

function begin(): LedgerThread {
  const thread = new Worker(new URL('./ledger.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<LedgerWorker>(thread);
  const loaded = remote.load();
  // Whoever waits for it is told; until then nobody may be waiting.
  loaded.catch(() => undefined);
  return { thread, remote, loaded };
}

let begun: LedgerThread | null = null;

/** Begins before the page comes to life, where it shows the ledger: reading that takes longest. */
export function beginLedger(): void {
  if (document.documentElement.dataset.shows === 'ledger') begun ??= begin();
}

/** The thread that was begun, or a new one where that was taken already. */
export function takeLedger(): LedgerThread {
  const taken = begun ?? begin();
  begun = null;
  return taken;
}
