import type { AccountCrossing, NotCompared, PricedAccount, Rise } from '@/core/ledger';
import { cheapFirstYear } from '@/core/ledger';
import type { YearPayment } from '@/core/pricing';
import { yearsWords } from '@/ui/text/words';

/** Why a price stands beside no other. */
export const NOT_COMPARED_WORDS: Readonly<Record<NotCompared, string>> = {
  'no price': 'no price known',
  'no rate': 'no rate into your currency',
  'privacy not known': 'price of privacy not known',
};

type Labels = ReadonlyMap<number, string>;
type Money = (minor: number) => string;

/** “A cheap first year that becomes dear”, with its figures; `null` where an account has none. */
export function cheapFirstYearWords(account: PricedAccount, labels: Labels, money: Money): string | null {
  const cheap = cheapFirstYear(account);
  return (
    cheap &&
    `${labels.get(account.accountId)}: a cheap first year that becomes dear, ${money(cheap.firstMinor)} and then ${money(cheap.laterMinor)} a year.`
  );
}

/** Where the cheaper of two changes, from the earliest on. */
export function crossingWords({ first, second, years, cheaper }: AccountCrossing, labels: Labels): string {
  const [a, b] = [labels.get(first) ?? '', labels.get(second) ?? ''];
  if (cheaper === 'equal') return `${a} and ${b} come to the same over ${yearsWords(years)}.`;
  const [less, more] = cheaper === 'first' ? [a, b] : [b, a];
  return `From ${yearsWords(years)} on ${less} costs less than ${more}.`;
}

/** By how much prices are taken to rise, and who says so. */
export function riseWords({ yearly, by }: Rise): string {
  const percent = `${(yearly * 100).toFixed(1).replace(/\.0$/, '')} % a year`;
  if (by === 'office') return `${percent}, as you said`;
  return by === 'list' ? `${percent}, as its list has risen` : 'taken not to rise: no older price is known';
}

/** What a payment does, in words. */
export function paymentWords({ action, years }: Pick<YearPayment, 'action' | 'years'>): string {
  if (action === 'register') return `register for ${yearsWords(years)}`;
  if (action === 'renew') return `renew for ${yearsWords(years)}`;
  return years === 0 ? 'transfer, which adds no year' : `transfer, with ${yearsWords(years)}`;
}
