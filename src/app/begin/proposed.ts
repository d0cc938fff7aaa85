import countryToCurrency from 'country-to-currency';
import { isCurrency, type NumberStyle, styleOfLocale } from '@/core/money';

/** What a browser proposes for the first questions. */
export interface Proposed {
  readonly homeCurrency: string;
  readonly numberStyle: NumberStyle;
  readonly zone: string;
}

/**
 * What somebody would answer who uses this language in this time zone: the currency of the language's region (ISO 3166 to ISO 4217), its number
 * style, and the zone itself. A language without a region stands for its likely one (Unicode likely subtags).
 */
export function proposedFor(language: string, zone: string): Proposed {
  let region: string | undefined;
  try {
    region = new Intl.Locale(language).maximize().region;
  } catch {
    // No language tag: the currency stays the usual one.
  }
  const currency = (countryToCurrency as Readonly<Record<string, string>>)[region ?? ''];
  return {
    homeCurrency: currency !== undefined && isCurrency(currency) ? currency : 'USD',
    numberStyle: styleOfLocale(language),
    zone,
  };
}
