import { de } from './de';
import { en } from './en';
import { es } from './es';
import { fr } from './fr';
import { pt } from './pt';
import type { ShopWords } from './words';

export type { ShopWords } from './words';

/** The languages of the window, by their tags (BCP 47); the first stands in where a buyer's is none of them. */
export const LANGUAGES = { en, de, fr, es, pt } as const satisfies Readonly<Record<string, ShopWords>>;
export type Language = keyof typeof LANGUAGES;

/** Where a language's amounts and days are taken from: English as most of its readers abroad write it. */
export const LOCALES: Readonly<Record<Language, string>> = {
  en: 'en-GB',
  de: 'de-DE',
  fr: 'fr-FR',
  es: 'es-ES',
  pt: 'pt-PT',
};
