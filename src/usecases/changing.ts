import { bumpRevision } from '@/database/ledger';
import { type Transaction, transaction } from '@/database/pool';
import type { Deps } from './deps';

/**
 * A command's change of the ledger, in one transaction: every command that writes what a screen shows goes through here. The
 * ledger's number rises first, so that no window keeps what is no longer true; that is also the order in which changes wait for
 * each other.
 */
export function changing<T>(deps: Pick<Deps, 'database'>, work: (tx: Transaction) => Promise<T>): Promise<T> {
  return transaction(deps.database, async (tx) => {
    await bumpRevision(tx);
    return work(tx);
  });
}
