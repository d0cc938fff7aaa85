import { type Amount, currencyDigits, readAmount, styleOfLocale } from '../money';
import type { Refusal } from '../refusal';
import { type Language, LOCALES } from './languages';

/** An amount as it is written in a language, with its currency; whole ones without cents. */
export function money(minor: number, currency: string, language: Language): string {
  const digits = currencyDigits(currency);
  const isWhole = minor % 10 ** digits === 0;
  return new Intl.NumberFormat(LOCALES[language], {
    style: 'currency',
    currency,
    minimumFractionDigits: isWhole ? 0 : digits,
    maximumFractionDigits: digits,
  }).format(minor / 10 ** digits);
}

/** A moment as it is written in a language; in UTC, since nobody has said where the reader is. */
export function moment(at: number, language: Language): string {
  return `${new Intl.DateTimeFormat(LOCALES[language], { dateStyle: 'long', timeStyle: 'short', timeZone: 'UTC' }).format(at)} UTC`;
}

/** Reads what a buyer has typed, as figures are written in the language of the page. */
export function readBuyersAmount(text: string, currency: string, language: Language): Amount | Refusal {
  return readAmount(text, { stated: currency, style: styleOfLocale(LOCALES[language]) });
}
