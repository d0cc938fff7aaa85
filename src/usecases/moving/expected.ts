import { indexRules, transferCodeOf, transferPrice } from '@/core/ledger';
import { dayOf } from '@/core/time';
import { selectLedgerRules } from '@/database/ledger';
import type { TransferRow } from '@/database/transfers';
import type { Deps } from '../deps';

/** What a transfer costs by the price list with a code, in minor units of the new account's currency. */
export interface WithCode {
  readonly code: string;
  readonly minor: number;
}

/** For transfers to accounts whose price lists know of a code: what each costs with it. By id. */
export async function sumsWithCode(deps: Deps, transfers: readonly TransferRow[]): Promise<Map<number, WithCode>> {
  const sums = new Map<number, WithCode>();
  if (transfers.length === 0) return sums;
  const index = indexRules(await selectLedgerRules(deps.database));
  const day = dayOf(deps.clock());
  for (const { id, toId, ending } of transfers) {
    const account = toId === null ? undefined : index.accounts.get(toId);
    const code = account ? transferCodeOf(index, account.id, ending, day) : null;
    const price = account && code !== null ? transferPrice(index, account, ending, day, [code]) : null;
    if (code !== null && price?.currency === account?.currency && price) sums.set(id, { code, minor: price.minor });
  }
  return sums;
}
