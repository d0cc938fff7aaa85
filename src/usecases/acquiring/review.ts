import {
  balanceAfter,
  besideTyped,
  CONFIRM_MAIL_DAYS,
  holdingOf,
  refundableUntil,
  type StarvedCharge,
  typedInFull,
} from '@/core/acquiring';
import { indexRules } from '@/core/ledger';
import { type Policy, policyFor } from '@/core/lifecycle';
import { type Amount, convert, sumByCurrency } from '@/core/money';
import { isRefusal, type Refusal } from '@/core/refusal';
import { addDays, addYears, dayOf } from '@/core/time';
import { selectAccounts } from '@/database/accounts';
import { selectLedgerRules } from '@/database/ledger';
import { selectWanted, type WantedRow } from '@/database/wanted';
import { compute } from '../computing';
import type { Deps } from '../deps';
import { readRequest } from '../validate';
import { confirmedAddresses } from './addresses';
import { type ReviewChoice, ReviewRequest } from './requests';
import type { Known, ReviewItem } from './reviewItem';
import { withLivePrices } from './reviewPrices';
import type { Spelled } from './spelled';

export type { ReviewItem } from './reviewItem';

/** What an account would be charged, and what that leaves. */
export interface ReviewAccount {
  readonly id: number;
  readonly label: string;
  readonly currency: string;
  readonly linked: boolean;
  readonly totals: readonly Amount[];
  readonly balance: Amount | null;
  readonly after: Amount | null;
  readonly means: readonly string[];
  readonly starved: StarvedCharge | null;
}

export interface Review {
  readonly items: readonly ReviewItem[];
  readonly accounts: readonly ReviewAccount[];
  readonly homeTotal: Amount | null;
}

/** How long a name is weighed over where nobody says. */
const USUAL_YEARS = 5;

/**
 * Everything that should be seen before names of the shortlist are registered: each spelt out, at which account and for how long, what it
 * costs live (by link, with its fee) or by the price list, what is left of each balance, and which coming charge would fail by it.
 */
export async function reviewNames(deps: Deps, input: unknown): Promise<Review | Refusal> {
  const request = await readRequest(ReviewRequest, input);
  if (isRefusal(request)) return request;
  const [all, accounts, isConfirmed, rules] = await Promise.all([
    selectWanted(deps.database),
    selectAccounts(deps.database),
    confirmedAddresses(deps.database),
    selectLedgerRules(deps.database),
  ]);
  const at = deps.clock();
  const known: Known = {
    index: indexRules(rules),
    accounts: new Map(accounts.map((account) => [account.id, account])),
    isConfirmed,
    at,
    day: dayOf(at),
  };
  const asked = new Set(request.choices.map(({ ascii }) => ascii));
  const wanted = all.filter(({ ascii }) => asked.has(ascii));
  // What looks at every name of the ledger is computed where nobody else waits for it.
  const names = wanted.map(({ unicode }) => unicode);
  const spelled = names.length === 0 ? [] : await compute(deps, 'spellNames', names);
  const spelling = new Map(names.map((unicode, i) => [unicode, spelled[i] as Spelled]));
  const byName = new Map(wanted.map((row) => [row.ascii, row]));
  const chosen = request.choices.flatMap((choice) => {
    const row = byName.get(choice.ascii);
    const spelt = row && spelling.get(row.unicode);
    return row && spelt ? [itemOf(known, row, spelt, choice)] : [];
  });
  const items = await withLivePrices(deps, known, chosen);
  const priced = items.filter((item) => item.price !== null && item.problem === '');
  const sums = (accountId: number) =>
    priced.flatMap((item) =>
      item.accountId === accountId ? [item.price?.total ?? [], item.privacyPrice ?? []].flat() : [],
    );
  const used = [...new Set(items.flatMap(({ accountId }) => accountId ?? []))].flatMap(
    (id) => known.accounts.get(id) ?? [],
  );
  const totals = used.map(({ id }) => sumByCurrency(sums(id)));
  const spendings = used.map(({ id, currency }, i) => ({
    accountId: id,
    minor: totals[i]?.find((one) => one.currency === currency)?.minor ?? 0,
  }));
  const starved = await compute(deps, 'starvedCharges', spendings);
  return {
    items,
    accounts: used.map(
      ({ id, label, currency, linked, balanceMinor, paymentMethods }, i): ReviewAccount => ({
        id,
        label,
        currency,
        linked,
        totals: totals[i] ?? [],
        balance: balanceMinor === null ? null : { minor: balanceMinor, currency },
        after: balanceAfter(balanceMinor, totals[i] ?? [], currency),
        means: paymentMethods.map((method) => method.label),
        starved: starved[i] ?? null,
      }),
    ),
    homeTotal: homeSum(known, totals.flat()),
  };
}

function homeSum({ index, day }: Known, sums: readonly Amount[]): Amount | null {
  const { homeCurrency, rates } = index.rules;
  let minor = 0;
  for (const sum of sums) {
    const home = sum.currency === homeCurrency ? sum : convert(sum, homeCurrency, rates, day);
    if (home === null) return null;
    minor += home.minor;
  }
  return { minor, currency: homeCurrency };
}

function itemOf(known: Known, wanted: WantedRow, spelled: Spelled, choice: ReviewChoice): ReviewItem {
  const { index, day, at, accounts } = known;
  const { unicode, ending } = wanted;
  const { spelling, meant, isOurs } = spelled;
  const policy: Policy = policyFor(ending, index.policies);
  const asked = { day, newAt: new Set<number>(), codes: [], privacy: false };
  const holding = holdingOf(index, ending, asked);
  const sold = holding.accounts.filter(({ totals }) => totals.some((total) => total !== null));
  const first = holding.best[USUAL_YEARS - 1]?.payments[0];
  const accountId = choice.accountId ?? first?.accountId ?? sold[0]?.accountId ?? null;
  const { least, greatest, step } = policy.terms.register;
  const terms = Array.from({ length: Math.floor((greatest - least) / step) + 1 }, (_, i) => least + i * step).filter(
    (term) => term <= policy.ceilingYears,
  );
  const wished = choice.years ?? least;
  const years = terms.includes(wished) ? wished : least;
  const account = accountId === null ? null : (accounts.get(accountId) ?? null);
  const mail = account?.holderMail ?? null;
  return {
    wanted,
    spelling,
    meant,
    beside: besideTyped(unicode, typedInFull(wanted.typed, unicode)),
    accountIds: sold.map((one) => one.accountId),
    accountId,
    years,
    terms,
    autoRenew: choice.autoRenew ?? true,
    privacy: choice.privacy ?? false,
    nameServers: choice.nameServers ?? '',
    price: null,
    privacyPrice: null,
    kind: isOurs ? 'ours' : 'unknown',
    problem: isOurs ? 'It is in the ledger already.' : account === null ? 'No account is known to sell it.' : '',
    newEnd: addYears(at, years),
    refundUntil: account && refundableUntil(at, policy, account),
    holder: account?.holder ?? null,
    holderMail: mail,
    confirmMailBy:
      mail !== null && accountId !== null && known.isConfirmed(accountId, mail) ? null : addDays(at, CONFIRM_MAIL_DAYS),
  };
}
