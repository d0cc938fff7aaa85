import { type AccountFunding, fundingOf, lapseAt, projectIf, type WhatIf } from '@/core/ledger';
import type { Instant } from '@/core/time';
import { selectAccount } from '@/database/accounts';
import type { Deps } from '../deps';
import { projectedLedger } from '../names/ledger';

/** What an account will charge up to a day, with the names of its charges. */
export interface AccountForecast extends Pick<AccountFunding, 'account' | 'months' | 'notKnown' | 'leastTopUp'> {
  readonly until: Instant;
  readonly balanceAt: Instant | null;
  readonly charges: readonly (AccountFunding['charges'][number] & { readonly ascii: string })[];
  /** Names that lapse because their charge fails. */
  readonly lapsing: readonly { readonly ascii: string; readonly lapsesAt: Instant; readonly years: number }[];
}

/** Plays one account forward up to `until`, as it is or as if it were changed; `null` where there is no such account. */
export async function accountForecast(
  deps: Deps,
  accountId: number,
  until: Instant,
  thought: Omit<WhatIf, 'accountId'> | null,
): Promise<AccountForecast | null> {
  const row = await selectAccount(deps.database, accountId);
  if (!row) return null;
  const ledger = projectIf(await projectedLedger(deps), thought ? { ...thought, accountId } : UNCHANGED(accountId));
  const [funding] = fundingOf(ledger, until);
  if (!funding) return null;
  const { names } = ledger;
  const { account, months, notKnown, leastTopUp, charges, lapsing } = funding;
  return {
    account,
    months,
    notKnown,
    leastTopUp,
    until,
    balanceAt: row.balanceAt,
    charges: charges.map((charge) => ({ ...charge, ascii: names.ascii(charge.place) })),
    lapsing: lapsing.map((place) => ({ ascii: names.ascii(place), ...lapseAt(ledger, place) })),
  };
}

const UNCHANGED = (accountId: number): WhatIf => ({ accountId, topUpMinor: 0, card: null });
