import { de } from './words/de';
import { en, type ShopTexts } from './words/en';
import { es } from './words/es';
import { fr } from './words/fr';
import { pt } from './words/pt';

/** The languages of the shop, by their tags (BCP 47); the first stands in where a buyer's is none of them. */
export const LANGUAGES = { en, de, fr, es, pt } as const satisfies Readonly<Record<string, ShopTexts>>;
export type Language = keyof typeof LANGUAGES;
export const LANGUAGE_TAGS = Object.keys(LANGUAGES) as readonly Language[];

/** Where a language's amounts and days are taken from: English as most of its readers abroad write it. */
export const LOCALES: Readonly<Record<Language, string>> = {
  en: 'en-GB',
  de: 'de-DE',
  fr: 'fr-FR',
  es: 'es-ES',
  pt: 'pt-PT',
};

/** Each language by its own name. */
export const LANGUAGE_NAMES: Readonly<Record<Language, string>> = {
  en: 'English',
  de: 'Deutsch',
  fr: 'Français',
  es: 'Español',
  pt: 'Português',
};
