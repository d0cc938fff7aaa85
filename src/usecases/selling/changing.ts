import { bumpRevision } from '@/database/ledger';
import { type Transaction, transaction } from '@/database/pool';
import type { Deps } from '../deps';

/** A change of what is sold, in one transaction. The ledger's number rises first: that is also the order in which changes wait for each other. */
export function changing<T>(deps: Deps, work: (tx: Transaction) => Promise<T>): Promise<T> {
  return transaction(deps.database, async (tx) => {
    await bumpRevision(tx);
    return work(tx);
  });
}
