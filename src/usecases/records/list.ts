import { indexRules, type LedgerAccount, type RuleIndex } from '@/core/ledger';
import { policyFor, registryFeeOn } from '@/core/lifecycle';
import { type Amount, sumIn } from '@/core/money';
import { parseDomainName, splitNames } from '@/core/names';
import { conditionWords, priceInForce, termCost } from '@/core/pricing';
import type { RegistrationRecord } from '@/core/records';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { type Day, dayOf } from '@/core/time';
import { selectLedgerRules } from '@/database/ledger';
import { selectNewestRecords } from '@/database/records';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { drainChecks, queueChecks } from './check';

/** A name that was looked up: free, with what it would cost where; or taken. */
export interface ListedName {
  readonly ascii: string;
  readonly unicode: string;
  /** `null`: no record could be had. */
  readonly record: RegistrationRecord | null;
  /** What the first year and each later one cost, cheapest first; empty for a name that is taken. */
  readonly offers: readonly ListedOffer[];
}

export interface ListedOffer {
  readonly account: string;
  readonly first: Amount;
  /** On what the price of the first year depends; `null` for nothing. */
  readonly condition: string | null;
  readonly later: Amount | null;
  /** The first two years in the home currency by today's rate; `null` where a rate or a price is missing: then it is not compared. */
  readonly twoYears: Amount | null;
}

const MOST_NAMES = 500;

/** Looks up every name of a pasted list: the free ones first, by what two years cost, then those that are taken. */
export const lookUpList = command('lookUpList', async (deps: Deps, text: string): Promise<ListedName[] | Refusal> => {
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
    const offers = rules.accounts.flatMap((account) => offerOf(index, account, ending, day) ?? []);
    offers.sort((a, b) => order(a) - order(b));
    return { ascii: name, unicode, record, offers: record?.found === false ? offers : [] };
  });
  const rank = ({ record, offers: [cheapest] }: ListedName) =>
    record?.found === false ? (cheapest ? order(cheapest) : Number.MAX_SAFE_INTEGER - 1) : Number.MAX_SAFE_INTEGER;
  return found.sort((a, b) => rank(a) - rank(b) || (a.ascii < b.ascii ? -1 : 1));
});

/** What an account asks for a new name of an ending, its first year included; `null` where it has no price. */
function offerOf(index: RuleIndex, account: LedgerAccount, ending: string, day: Day): ListedOffer | null {
  const priced = { accountId: account.id, ending, nameId: null };
  const register = priceInForce(index.book, priced, 'register', day);
  const renew = priceInForce(index.book, priced, 'renew', day);
  const price = register ?? renew;
  const { rates, homeCurrency } = index.rules;
  const fee = policyFor(ending, index.policies).yearlyFee ? registryFeeOn(index.fees, day) : null;
  const terms = { years: 1, fee, rates, day, taxPercent: account.taxPercent };
  const first = price && termCost(price, { ...terms, firstYear: register !== null })?.total;
  if (!price || !first) return null;
  const later = renew ? (termCost(renew, terms)?.total ?? null) : null;
  const hasFirst = register?.firstYearMinor != null;
  return {
    account: account.label,
    first,
    condition: hasFirst && register.firstYearCondition ? conditionWords(register.firstYearCondition) : null,
    later,
    twoYears: later && sumIn([first, later], homeCurrency, rates, day),
  };
}

/** What cannot be compared comes last. */
const order = ({ twoYears }: ListedOffer) => twoYears?.minor ?? Number.MAX_SAFE_INTEGER - 2;
