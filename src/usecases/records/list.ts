import { indexRules } from '@/core/ledger';
import { policyFor, registryFeeOn } from '@/core/lifecycle';
import type { Amount } from '@/core/money';
import { parseDomainName, splitNames } from '@/core/names';
import { priceInForce, termCost } from '@/core/pricing';
import type { RegistrationRecord } from '@/core/records';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayOf } from '@/core/time';
import { selectLedgerRules } from '@/database/ledger';
import { selectNewestRecords } from '@/database/records';
import type { Deps } from '../deps';
import { drainChecks, queueChecks } from './check';

/** A name that was looked up: free, with what it would cost where; or taken. */
export interface ListedName {
  readonly ascii: string;
  readonly unicode: string;
  /** `null`: no record could be had. */
  readonly record: RegistrationRecord | null;
  /** What the first year and each later one cost, cheapest first; empty for a name that is taken. */
  readonly offers: readonly { readonly account: string; readonly first: Amount; readonly later: Amount | null }[];
}

const MOST_NAMES = 500;

/** Looks up every name of a pasted list: the free ones first, by what two years cost, then those that are taken. */
export async function lookUpList(deps: Deps, text: string): Promise<ListedName[] | Refusal> {
  const names = [
    ...new Map(
      splitNames(text).flatMap(({ text: written }) => {
        const name = parseDomainName(written);
        return isRefusal(name) ? [] : [[name.ascii, name] as const];
      }),
    ).values(),
  ];
  if (names.length === 0) return refuse('no-names', 'No names are in this text. Paste names like kelpkiln.com.');
  if (names.length > MOST_NAMES) return refuse('too-many-names', 'Look up to 500 names at a time.');
  const ascii = names.map((name) => name.ascii);
  await queueChecks(deps, ascii);
  await drainChecks(deps, ascii.length);
  const [records, rules] = await Promise.all([
    selectNewestRecords(deps.database, ascii),
    selectLedgerRules(deps.database),
  ]);
  const index = indexRules(rules);
  const day = dayOf(deps.clock());
  const found = names.map(({ ascii: name, unicode, ending }): ListedName => {
    const record = records.find((one) => one.ascii === name && one.source !== 'registrar')?.record ?? null;
    const fee = policyFor(ending, index.policies).yearlyFee ? registryFeeOn(index.fees, day) : null;
    const offers = rules.accounts.flatMap((account) => {
      const priced = { accountId: account.id, ending, nameId: null };
      const register = priceInForce(index.book, priced, 'register', day);
      const renew = priceInForce(index.book, priced, 'renew', day);
      const price = register ?? renew;
      if (!price) return [];
      const { taxPercent } = account;
      const first = termCost(price, { years: 1, fee, taxPercent }).total;
      return [
        { account: account.label, first, later: renew ? termCost(renew, { years: 1, fee, taxPercent }).total : null },
      ];
    });
    offers.sort((a, b) => twoYears(a) - twoYears(b));
    return { ascii: name, unicode, record, offers: record?.found === false ? offers : [] };
  });
  const rank = ({ record, offers }: ListedName) =>
    record?.found === false ? twoYears(offers[0]) : Number.MAX_SAFE_INTEGER;
  return found.sort((a, b) => rank(a) - rank(b) || (a.ascii < b.ascii ? -1 : 1));
}

/** Minor units of the first two years; those of different currencies are ordered as if they were equal. */
function twoYears(offer: ListedName['offers'][number] | undefined): number {
  return offer ? offer.first.minor + (offer.later?.minor ?? offer.first.minor) : Number.MAX_SAFE_INTEGER - 1;
}
