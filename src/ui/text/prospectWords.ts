import { type Amount, currencyDigits } from '@/core/money';
import { bandOf, type Forecast, type Input, type Origin } from '@/core/prospects';
import { formatMonth, type Month } from '@/core/time';
import { formatAmount } from './figures';

/** A share as percent: `2 %`, `1.9 %`, `under 0.1 %`. */
export function shareWords(share: number): string {
  const percent = share * 100;
  if (percent > 0 && percent < 0.1) return 'under 0.1 %';
  const digits = percent < 10 && Math.round(percent * 10) % 10 !== 0 ? 1 : 0;
  return `${percent.toFixed(digits)} %`;
}

/** Of a hundred: `62 of 100`, `under 1 of 100`, `no`. */
export function ofHundred(share: number): string {
  if (share === 0) return 'no';
  const whole = Math.round(share * 100);
  if (whole === 0) return 'under 1 of 100';
  return share < 1 && whole === 100 ? 'over 99 of 100' : `${whole} of 100`;
}

const YEAR_WORDS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'] as const;
/** `five years`, `one year`. */
export function yearsInWords(years: number): string {
  return `${YEAR_WORDS[years] ?? years} ${years === 1 ? 'year' : 'years'}`;
}

/** A figure that is only about so much, in whole units: `$641`. Under ten units with their cents. `minor` may be a fraction. */
export function roughly(minor: number, currency: string): string {
  const unit = 10 ** currencyDigits(currency);
  const rounded = Math.abs(minor) < 10 * unit ? Math.round(minor) : Math.round(minor / unit) * unit;
  return formatAmount({ minor: rounded || 0, currency }, true);
}

/** The same with its sign, of a gain or a loss: `+$40`, `−$12`. */
export function roughGain(minor: number, currency: string): string {
  return `${minor < 0 ? '−' : '+'}${roughly(Math.abs(minor), currency)}`;
}

/** A gain with its sign: `+$40`, `−$12.50`. */
export function signed(amount: Amount): string {
  const size = formatAmount({ ...amount, minor: Math.abs(amount.minor) }, true);
  return amount.minor < 0 ? `−${size}` : `+${size}`;
}

const LIST = new Intl.ListFormat('en-GB');

/** What a forecast answers, in one sentence. */
export function outlookAnswer({ fans, months, lacking }: Forecast): string {
  const [fan] = fans;
  if (!fan) {
    const { unpricedCount, balances, currencies } = lacking;
    const prices = unpricedCount === 1 ? 'a renewal price' : `${unpricedCount} renewal prices`;
    const funds = balances.length === 1 ? 'a balance' : `${balances.length} balances`;
    const rates = currencies.length === 1 ? 'a rate' : `${currencies.length} rates`;
    const what = [
      ...(unpricedCount > 0 ? [prices] : []),
      ...(balances.length > 0 ? [funds] : []),
      ...(currencies.length > 0 ? [rates] : []),
    ];
    const count = unpricedCount + balances.length + currencies.length;
    return `There is no outlook yet: ${LIST.format(what)} ${count === 1 ? 'is' : 'are'} not known.`;
  }
  const years = yearsInWords(Math.round(months.length / 12));
  const carry = `Over ${years} sales carry what is charged on ${ofHundred(fan.carries)} paths`;
  const short = fan.short.at(-1) ?? 0;
  if (short === 0 || fan.usuallyShort === null) return `${carry}; on none does the money run out.`;
  const from = formatMonth(months[fan.usuallyShort] as Month);
  return `${carry}; on ${ofHundred(short)} the money runs out, half of the time by ${from}.`;
}

/** A group by its key, as the grouping has it. */
export function groupWords(
  grouping: 'ending' | 'tag' | 'asking' | 'view',
  key: string,
  currency: string,
  view: string,
): string {
  switch (grouping) {
    case 'ending':
      return `.${key}`;
    case 'tag':
      return key === '' ? 'no tag' : key;
    case 'view':
      return key === 'yes' ? `in “${view}”` : 'all others';
    case 'asking': {
      const [from, below] = bandOf(key);
      const units = (value: number) => value.toLocaleString('en');
      if (from === null) return `asked under ${units(below ?? 0)} ${currency}`;
      return below === null
        ? `asked ${units(from)} ${currency} and more`
        : `asked ${units(from)} to ${units(below)} ${currency}`;
    }
  }
}

/** Where a figure comes from. */
export const ORIGIN_WORDS: Readonly<Record<Origin, string>> = {
  said: 'you have said so',
  'own sales': 'from own sales',
  usual: 'nothing yet: an assumption',
};

export const INPUT_WORDS: Readonly<Record<Input, string>> = {
  chance: 'Chance of a sale in a year',
  share: 'Share of the asking price that is paid',
  commission: 'Commission where nothing is listed',
  rise: 'Renewal prices rise each year by more',
  offers: 'Names with offers sell more often by',
};

/** An end of an input's spread. */
export function inputWords(input: Input, value: number): string {
  return input === 'offers' ? `× ${value.toFixed(1)}` : shareWords(value);
}

/** `12 sales in 840 name-years on offer`. */
export function seenWords(sales: number, nameYears: number): string {
  const years = nameYears < 10 ? nameYears.toFixed(1) : Math.round(nameYears).toLocaleString('en');
  return `${sales} ${sales === 1 ? 'sale' : 'sales'} in ${years} name-years on offer`;
}
