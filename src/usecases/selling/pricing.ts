import { policyFor, transferLockEnds } from '@/core/lifecycle';
import { parseDomainName, splitNames } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import type { PricedName, Pricing } from '@/core/selling';
import { earliestEnd } from '@/core/time';
import { selectDatedSpending, selectListings, selectSaleNames } from '@/database/listings';
import { type MarketplaceRow, selectMarketplaces } from '@/database/marketplaces';
import { selectNameIds } from '@/database/names';
import { selectPolicies } from '@/database/policies';
import { selectRates } from '@/database/rates';
import { selectPastSales } from '@/database/sales';
import { selectSettings } from '@/database/settings';
import type { Deps } from '../deps';
import { differingNames } from '../records/compare';

/** Everything the pricing grid works with, the marketplaces as they are set up. The rest is computed where it is typed. */
export type PricingView = Pricing<MarketplaceRow>;

export async function pricingOf(deps: Deps, nameIds: readonly number[]): Promise<PricingView> {
  const { database } = deps;
  const [names, listings, marketplaces, rates, sales, settings] = await Promise.all([
    pricedNames(deps, nameIds),
    selectListings(database, nameIds),
    selectMarketplaces(database),
    selectRates(database),
    selectPastSales(database),
    selectSettings(database),
  ]);
  return { names, listings, marketplaces, rates, sales, homeCurrency: settings.homeCurrency, now: deps.clock() };
}

/** What checks have to know of names, by their ids. */
export async function pricedNames(deps: Deps, nameIds: readonly number[]): Promise<PricedName[]> {
  const [names, entries, policies, elsewhere] = await Promise.all([
    selectSaleNames(deps.database, nameIds),
    selectDatedSpending(deps.database, nameIds),
    selectPolicies(deps.database),
    namesElsewhere(deps, nameIds),
  ]);
  const byEnding = new Map(policies.map((policy) => [policy.ending, policy]));
  return names.map((name) => ({
    nameId: name.nameId,
    ascii: name.ascii,
    unicode: name.unicode,
    account: name.account,
    spent: name.spent,
    entries: entries.get(name.nameId) ?? [],
    asking: name.askingMinor === null ? null : { minor: name.askingMinor, currency: name.askingCurrency as string },
    termEnd: name.termEnd === null ? null : earliestEnd(name.termEnd),
    lockedUntil: transferLockEnds(name.registered, policyFor(name.ending, byEnding).transferLockDays),
    atAccount: !elsewhere.has(name.nameId),
  }));
}

/** Names that the registration record has at another registrar than the ledger. */
async function namesElsewhere(deps: Deps, nameIds: readonly number[]): Promise<Set<number>> {
  const differing = await differingNames(deps, nameIds);
  return new Set(
    differing.flatMap(({ nameId, differences }) =>
      differences.some(({ kind }) => kind === 'not at that registrar') ? [nameId] : [],
    ),
  );
}

/** What a pasted list of names holds. */
export interface PastedNames {
  readonly nameIds: readonly number[];
  /** What is written there and not in the ledger. */
  readonly unknown: readonly string[];
}

const MOST_PASTED = 500;

/** Finds one's own names in a pasted list. */
export async function pastedNames(deps: Deps, text: string): Promise<PastedNames | Refusal> {
  const written = splitNames(text).map((one) => one.text);
  if (written.length === 0) return refuse('no-names', 'No names are in this text. Paste names like kelpkiln.com.');
  const ascii = new Map<string, string>();
  for (const one of written) {
    const name = parseDomainName(one);
    ascii.set(isRefusal(name) ? one : name.ascii, one);
  }
  if (ascii.size > MOST_PASTED) return refuse('too-many-names', 'List up to 500 names at a time.');
  const ids = await selectNameIds(deps.database, [...ascii.keys()]);
  const there = await selectSaleNames(deps.database, [...ids.values()]);
  const known = new Set(there.map((name) => name.ascii));
  return {
    nameIds: there.map(({ nameId }) => nameId),
    unknown: [...ascii].flatMap(([name, one]) => (known.has(name) ? [] : [one])),
  };
}
