import { registerCost } from '@/core/ledger';
import { type Amount, convert } from '@/core/money';
import { conditionWords, priceInForce } from '@/core/pricing';
import type { AccountRow } from '@/database/accounts';
import type { Deps } from '../deps';
import { linkOf } from '../links/links';
import type { Known, ReviewItem, ReviewPrice } from './reviewItem';

/** Asks each linked account for its names at once; the others by their price lists. */
export async function withLivePrices(deps: Deps, known: Known, items: readonly ReviewItem[]): Promise<ReviewItem[]> {
  const groups = new Map<string, ReviewItem[]>();
  for (const item of items) {
    const key = `${item.accountId} ${item.years}`;
    groups.set(key, [...(groups.get(key) ?? []), item]);
  }
  const priced = await Promise.all([...groups.values()].map((group) => priceGroup(deps, known, group)));
  const byName = new Map(priced.flat().map((item) => [item.wanted.ascii, item]));
  return items.map((item) => byName.get(item.wanted.ascii) ?? item);
}

async function priceGroup(deps: Deps, known: Known, group: readonly ReviewItem[]): Promise<ReviewItem[]> {
  const [first] = group;
  const account = first?.accountId == null ? null : (known.accounts.get(first.accountId) ?? null);
  if (!first || !account) return [...group];
  const link = await linkOf(deps, account.id);
  const names = group.map(({ wanted }) => wanted.ascii);
  const asked = link ? await link.check(names, first.years, account.currency) : null;
  const told = new Map(asked?.kind === 'done' ? asked.value.map((one) => [one.name, one]) : []);
  return group.map((item): ReviewItem => {
    const listed = listPrice(known, account, item);
    const base = { ...item, privacyPrice: item.privacy ? privacyPrice(known, account, item) : null };
    const one = told.get(item.wanted.ascii);
    if (item.kind === 'ours') return base;
    if (!one) {
      const problem = asked?.kind === 'refused' ? `${account.label} says: ${asked.reason}.` : '';
      const unsure = listed === null ? `${account.label} names no price for it.` : problem;
      return { ...base, kind: 'perhaps', price: listed, problem: unsure };
    }
    if (!one.avail)
      return {
        ...base,
        kind: 'taken',
        price: null,
        problem: `${account.label} does not sell it${one.reason ? `: ${one.reason}` : ''}.`,
      };
    if (!one.register)
      return {
        ...base,
        kind: one.premium ? 'premium' : 'available',
        price: one.premium ? null : listed,
        problem: one.premium ? 'Its own price was not told.' : '',
      };
    const differs = listed !== null && !one.premium && listed.total.minor !== one.register.minor;
    const lines = listed !== null && !differs && !one.premium ? listed : null;
    return {
      ...base,
      kind: one.premium ? 'premium' : 'available',
      problem: '',
      price: {
        total: one.register,
        home: toHome(known, one.register),
        by: 'link',
        fee: lines?.fee ?? null,
        tax: lines?.tax ?? null,
        renewal: one.renew ?? listed?.renewal ?? null,
        isOwnPrice: one.premium,
        condition: lines?.condition ?? null,
        listed: differs ? listed.total : null,
      },
    };
  });
}

function toHome({ index, day }: Known, sum: Amount): Amount | null {
  const { homeCurrency, rates } = index.rules;
  return sum.currency === homeCurrency ? null : convert(sum, homeCurrency, rates, day);
}

function listPrice(known: Known, account: AccountRow, { wanted, years }: ReviewItem): ReviewPrice | null {
  const { index, day } = known;
  const cost = registerCost(index, account, wanted.ending, years, day);
  if (!cost) return null;
  const of = { accountId: account.id, nameId: null, ending: wanted.ending };
  const renew = priceInForce(index.book, of, 'renew', day);
  const register = priceInForce(index.book, of, 'register', day);
  const condition =
    register?.firstYearMinor != null && register.firstYearCondition
      ? conditionWords(register.firstYearCondition)
      : null;
  return {
    total: cost.total,
    home: toHome(known, cost.total),
    by: 'list',
    fee: cost.fee,
    tax: cost.tax,
    renewal: renew && { minor: renew.yearMinor, currency: renew.currency },
    isOwnPrice: false,
    condition,
    listed: null,
  };
}

function privacyPrice({ index, day }: Known, account: AccountRow, { wanted }: ReviewItem): Amount | null {
  const price = priceInForce(
    index.book,
    { accountId: account.id, nameId: null, ending: wanted.ending },
    'privacy',
    day,
  );
  return price && { minor: price.firstYearMinor ?? price.yearMinor, currency: price.currency };
}
