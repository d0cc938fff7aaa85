import { isGone } from '../lifecycle';
import type { LedgerAccount } from './data';
import type { LedgerRow } from './projection';

/** What nobody has said yet, and how much of the forecast rests on it. */
export interface Unknowns {
  /** Names whose end of term is not known: nothing is told of them at all. */
  readonly ends: number;
  /** Names of which nobody has said whether the registrar renews them by itself. */
  readonly settings: number;
  /** Names without a known renewal price, and by which prices all of them would have one. */
  readonly unpriced: number;
  readonly prices: readonly { readonly accountId: number; readonly ending: string; readonly names: number }[];
  /** Accounts that charge by themselves, with nothing said of what they pay from, or with a balance that is not known. */
  readonly accounts: readonly { readonly accountId: number; readonly names: number }[];
  /** Names whose forecast rests on one of these. */
  readonly resting: number;
  readonly names: number;
}

/** True for an account of which nobody has said from what it pays, or how much stands there. */
export function lacksMeans({
  paymentMethods,
  balanceMinor,
}: Pick<LedgerAccount, 'paymentMethods' | 'balanceMinor'>): boolean {
  return paymentMethods.length === 0 || (paymentMethods[0]?.kind === 'balance' && balanceMinor === null);
}

/** Whether something has to be known of a name at all: not where it is being dropped, or gone. */
const counts = ({ name, phase }: LedgerRow) => name.purpose !== 'drop' && !isGone(phase);

/** What may be missing of a name itself; a price and the means are missing of an ending and of an account. */
const LACKS = {
  end: ({ termEnd }: LedgerRow) => termEnd === null,
  setting: ({ setting }: LedgerRow) => setting === 'unknown',
} as const;
export type Lacking = keyof typeof LACKS;

/** The first `limit` of the names that `unknownsOf` counts as lacking something. */
export function namesLacking(rows: readonly LedgerRow[], what: Lacking, limit: number): LedgerRow[] {
  const found: LedgerRow[] = [];
  for (const row of rows) {
    if (found.length >= limit) break;
    if (counts(row) && LACKS[what](row)) found.push(row);
  }
  return found;
}

/** Counts what is not known of `rows`. */
export function unknownsOf(rows: readonly LedgerRow[], accounts: ReadonlyMap<number, LedgerAccount>): Unknowns {
  let [ends, settings, unpriced, resting, names] = [0, 0, 0, 0, 0];
  const prices = new Map<string, { accountId: number; ending: string; names: number }>();
  const withoutMeans = new Map<number, number>();
  for (const row of rows) {
    if (!counts(row)) continue;
    const { name, setting, costs } = row;
    names += 1;
    let rests = false;
    if (LACKS.end(row)) {
      ends += 1;
      rests = true;
    }
    if (LACKS.setting(row)) {
      settings += 1;
      rests = true;
    }
    if (costs.renewal === null) {
      unpriced += 1;
      rests = true;
      const key = `${name.accountId} ${name.ending}`;
      const line = prices.get(key);
      if (line) line.names += 1;
      else prices.set(key, { accountId: name.accountId, ending: name.ending, names: 1 });
    }
    const account = accounts.get(name.accountId);
    if (account && (setting === 'on' || setting === 'stalled') && lacksMeans(account)) {
      withoutMeans.set(account.id, (withoutMeans.get(account.id) ?? 0) + 1);
      rests = true;
    }
    if (rests) resting += 1;
  }
  return {
    ends,
    settings,
    unpriced,
    prices: [...prices.values()].sort((a, b) => b.names - a.names || (a.ending < b.ending ? -1 : 1)),
    accounts: [...withoutMeans].map(([accountId, count]) => ({ accountId, names: count })),
    resting,
    names,
  };
}
