import { amount } from '@/core/money';
import { conditionWords } from '@/core/pricing';
import { formatInstant } from '@/core/time';
import { selectAccounts } from '@/database/accounts';
import { selectPriceRows } from '@/database/prices';
import type { Deps } from '../deps';
import { moneyDocument } from '../names/nameDocument';

/** Accounts as `/api/v1` shows them. */
export async function accountDocuments(deps: Deps) {
  const rows = await selectAccounts(deps.database);
  return rows.map((account) => ({
    label: account.label,
    registrar: account.registrar,
    currency: account.currency,
    names: account.names,
    leadDays: account.leadDays,
    lateDays: account.lateDays,
    switchHours: account.switchHours,
    lateFee: moneyDocument(amount(account.lateFeeMinor, account.currency)),
    auctionDay: account.auctionDay,
    yearsPerCharge: account.yearsPerCharge,
    retryDays: account.retryDays,
    paymentMethods: account.paymentMethods,
    balance: account.balanceMinor === null ? null : moneyDocument(amount(account.balanceMinor, account.currency)),
    balanceAt: account.balanceAt === null ? null : formatInstant(account.balanceAt),
    rulesKnown: account.rulesKnown,
  }));
}

/** Prices as `/api/v1` shows them. */
export async function priceDocuments(deps: Deps) {
  const [rows, accounts] = await Promise.all([selectPriceRows(deps.database), selectAccounts(deps.database)]);
  const labels = new Map(accounts.map((account) => [account.id, account.label]));
  const money = (minor: number | null, currency: string) =>
    minor === null ? null : moneyDocument(amount(minor, currency));
  return rows.map((price) => ({
    account: labels.get(price.accountId) ?? '',
    name: price.ascii,
    ending: price.ending,
    action: price.action,
    year: money(price.yearMinor, price.currency),
    firstYear: money(price.firstYearMinor, price.currency),
    firstYearCondition: price.firstYearCondition && conditionWords(price.firstYearCondition),
    termTotals: Object.fromEntries(
      Object.entries(price.termTotals ?? {}).map(([years, minor]) => [years, money(minor, price.currency)]),
    ),
    feeIncluded: price.feeIncluded,
    from: price.from,
    origin: price.origin,
    item: price.item,
    included: price.included,
    source: price.source,
  }));
}
