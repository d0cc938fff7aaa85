import { type Refusal, refuse } from '../refusal';
import { LANGUAGES, type Language } from './languages';
import type { ShopTexts, TextKey } from './words/en';

export type { ShopTexts, TextKey } from './words/en';

/** What the office says in words of its own, by language; the rest stays as it ships. */
export type OwnTexts = Readonly<Partial<Record<Language, Readonly<Partial<Record<TextKey, string>>>>>>;

export const TEXT_KEYS = Object.keys(LANGUAGES.en) as readonly TextKey[];
/** Longer than this no text of a buyer’s page is, in UTF-16 units as a form counts them. */
export const LONGEST_TEXT = 1000;

const BLANK = /\{(\w+)\}/g;
const blanksOf = (text: string): string[] => [...text.matchAll(BLANK)].map(([, blank]) => blank ?? '');

/** The texts of a language, with the office's own in their places. */
export function textsIn(language: Language, own: OwnTexts): ShopTexts {
  return { ...LANGUAGES[language], ...own[language] };
}

/** A text with what belongs into its blanks; nothing that is put in is read as a blank itself. */
export function fill(text: string, said: Readonly<Record<string, string | number>> = {}): string {
  return text.replace(BLANK, (blank, key: string) => (Object.hasOwn(said, key) ? String(said[key]) : blank));
}

/** Refuses a text of the office's own that is empty, too long, or has a blank that nothing is put into there. */
export function refuseText(key: TextKey, text: string): Refusal | null {
  if (text.trim() === '') return refuse('text-empty', 'Write a text, or take the own one back.', key);
  if (text.length > LONGEST_TEXT) return refuse('text-too-long', `Write it within ${LONGEST_TEXT} characters.`, key);
  const known = blanksOf(LANGUAGES.en[key]);
  const unknown = blanksOf(text).find((blank) => !known.includes(blank));
  if (unknown === undefined) return null;
  const may = known.length === 0 ? 'nothing is put in here' : `here stand ${known.map((one) => `{${one}}`).join(', ')}`;
  return refuse('text-blank-unknown', `{${unknown}} is put in nowhere: ${may}.`, key);
}
