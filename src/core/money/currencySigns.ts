/** The currencies that a sign may stand for, the one it means when nothing else is said first. */
const SIGNS: Readonly<Record<string, readonly string[]>> = {
  $: [
    'USD',
    'CAD',
    'AUD',
    'NZD',
    'SGD',
    'HKD',
    'MXN',
    'TWD',
    'BBD',
    'BMD',
    'BSD',
    'BZD',
    'JMD',
    'XCD',
    'CLP',
    'COP',
    'ARS',
  ],
  US$: ['USD'],
  C$: ['CAD'],
  CA$: ['CAD'],
  A$: ['AUD'],
  AU$: ['AUD'],
  NZ$: ['NZD'],
  HK$: ['HKD'],
  S$: ['SGD'],
  R$: ['BRL'],
  NT$: ['TWD'],
  '€': ['EUR'],
  '£': ['GBP', 'EGP', 'GIP', 'FKP', 'SHP'],
  '¥': ['JPY', 'CNY'],
  '￥': ['JPY', 'CNY'],
  円: ['JPY'],
  元: ['CNY', 'TWD'],
  '₩': ['KRW'],
  '₹': ['INR'],
  '₺': ['TRY'],
  '₴': ['UAH'],
  '₫': ['VND'],
  '₪': ['ILS'],
  kr: ['SEK', 'NOK', 'DKK', 'ISK'],
  'kr.': ['DKK', 'NOK', 'SEK', 'ISK'],
  zł: ['PLN'],
  Kč: ['CZK'],
  Ft: ['HUF'],
  lei: ['RON'],
  'Fr.': ['CHF'],
  'fr.': ['CHF'],
  TL: ['TRY'],
};

/** The currencies a sign may stand for, or `null` for what is no sign. */
export function currenciesOfSign(sign: string): readonly string[] | null {
  return SIGNS[sign] ?? null;
}

const escaped = (text: string) => text.replace(/[.$]/g, '\\$&');

/** Any sign, the longer ones first, for use within a regular expression. */
export const SIGN_PATTERN = Object.keys(SIGNS)
  .sort((a, b) => b.length - a.length)
  .map(escaped)
  .join('|');
