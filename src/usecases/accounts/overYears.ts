import { bestPaths, indexRules, MOST_YEARS, type NotCompared, type PricesAsked, pricesOfEnding } from '@/core/ledger';
import type { Amount } from '@/core/money';
import type { YearPath } from '@/core/pricing';
import { type Refusal, refuse } from '@/core/refusal';
import { type Day, dayOf } from '@/core/time';
import { selectLedgerRules } from '@/database/ledger';
import type { Deps } from '../deps';

/** A payment of a way: what is bought where, after how many years. */
export interface WayPayment {
  readonly account: string;
  readonly action: string;
  readonly years: number;
  readonly afterYears: number;
  readonly amount: Amount;
}

/** The cheapest way to hold a name for so many years: in all, what has to be paid now, and each payment. */
export interface Way {
  readonly years: number;
  readonly total: Amount;
  readonly now: Amount;
  readonly payments: readonly WayPayment[];
}

/** One account's price over the years that were asked for. */
export interface AccountOverYears {
  readonly account: string;
  readonly total: Amount | null;
  readonly next: (Amount & { readonly on: Day }) | null;
  readonly condition: string | null;
  readonly yearlyRise: number;
  readonly notCompared: NotCompared | null;
}

/** What an ending costs over years at each account, and the cheapest way of all, moves included. In the office's currency. */
export interface OverYears {
  readonly ending: string;
  readonly years: number;
  readonly accounts: readonly AccountOverYears[];
  readonly best: Way | null;
}

/**
 * What holding a name of an ending costs: `ending`, `years` (1 to 10, left out: 5), `heldAt` and `monthsLeft` for one that is held already, `newAt`
 * (accounts at which one is a new customer, by commas), `code`, `privacy`.
 */
export async function pricesOverYears(deps: Deps, query: URLSearchParams): Promise<OverYears | Refusal> {
  const ending = (query.get('ending') ?? '').replace(/^\./, '').toLowerCase();
  if (ending === '') return refuse('query-invalid', 'Say which ending, like com.', 'ending');
  const years = Number(query.get('years') ?? 5);
  if (!Number.isInteger(years) || years < 1 || years > MOST_YEARS)
    return refuse('query-invalid', `years is a whole number from 1 to ${MOST_YEARS}.`, 'years');
  const months = Number(query.get('monthsLeft') ?? 0);
  if (!(months >= 0 && months <= 120)) return refuse('query-invalid', 'monthsLeft is 0 to 120.', 'monthsLeft');
  const rules = await selectLedgerRules(deps.database);
  const numbered = (text: string) => rules.accounts.find(({ id }) => String(id) === text);
  const heldAt = query.get('heldAt');
  if (heldAt !== null && !numbered(heldAt))
    return refuse('query-invalid', 'heldAt is the number of an account.', 'heldAt');
  const newAt = (query.get('newAt') ?? '').split(',').filter(Boolean);
  if (newAt.some((one) => !numbered(one))) return refuse('query-invalid', 'newAt is numbers of accounts.', 'newAt');
  const code = query.get('code');
  const asked: PricesAsked = {
    held: heldAt === null ? { kind: 'new' } : { kind: 'held', accountId: Number(heldAt), yearsLeft: months / 12 },
    day: dayOf(deps.clock()),
    newAt: new Set(newAt.map(Number)),
    codes: code === null ? [] : [code],
    privacy: query.get('privacy') === 'true',
  };
  const index = indexRules(rules);
  const label = (id: number) => index.accounts.get(id)?.label ?? '';
  const home = (minor: number): Amount => ({ minor: Math.round(minor), currency: rules.homeCurrency });
  const way = (path: YearPath): Way => ({
    years: path.years,
    total: home(path.totalMinor),
    now: home(path.nowMinor),
    payments: path.payments.map(({ accountId, action, years: bought, after, minor }) => ({
      account: label(accountId),
      action,
      years: bought,
      afterYears: after,
      amount: home(minor),
    })),
  });
  const best = bestPaths(index, ending, asked)[years - 1] ?? null;
  return {
    ending,
    years,
    accounts: pricesOfEnding(index, ending, asked).accounts.map((priced): AccountOverYears => {
      const total = priced.totals[years - 1] ?? null;
      const next = priced.next[years - 1] ?? null;
      return {
        account: label(priced.accountId),
        total: total === null ? null : home(total),
        next: next && { ...home(next.minor), on: next.on },
        condition: priced.condition,
        yearlyRise: priced.rise.yearly,
        notCompared: priced.notCompared,
      };
    }),
    best: best && way(best),
  };
}
