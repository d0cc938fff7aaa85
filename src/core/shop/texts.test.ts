import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { isRefusal } from '../refusal';
import { LANGUAGE_TAGS, LANGUAGES } from './languages';
import { moment, money, readBuyersAmount } from './say';
import { fill, LONGEST_TEXT, refuseText, TEXT_KEYS, textsIn } from './texts';

const blanks = (text: string) => [...text.matchAll(/\{(\w+)\}/g)].map(([, one]) => one).sort();

describe.each(LANGUAGE_TAGS)('in %s', (language) => {
  test('every text is there, within its length, and has the blanks of the English one', () => {
    for (const key of TEXT_KEYS) {
      const text = LANGUAGES[language][key];
      expect(text.trim(), key).not.toBe('');
      expect(text.length, key).toBeLessThanOrEqual(LONGEST_TEXT);
      expect(blanks(text), key).toEqual(blanks(LANGUAGES.en[key]));
      expect(refuseText(key, text), key).toBeNull();
    }
  });

  test('what is written there is read there again', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 99_999_999_99 }),
        fc.constantFrom('EUR', 'USD', 'JPY'),
        (minor, currency) => {
          const written = money(minor, currency, language).replace(/[^\d.,’\s\u00a0\u202f]/g, '');
          const read = readBuyersAmount(written, currency, language);
          expect(isRefusal(read) ? read.message : read.minor).toBe(minor);
        },
      ),
    );
  });
});

test('the languages say different things', () => {
  for (const key of TEXT_KEYS) {
    const texts = LANGUAGE_TAGS.map((language) => LANGUAGES[language][key]);
    expect(new Set(texts).size, key).toBeGreaterThan(1);
  }
});

test('a text of the office’s own stands in its place, and the others stay', () => {
  const texts = textsIn('de', { de: { price: 'Für {amount}.' }, en: { price: 'For {amount}.' } });
  expect([texts.price, texts.offers]).toEqual(['Für {amount}.', LANGUAGES.de.offers]);
});

test('what is put in is never read as a blank, and a blank of nobody stays as it is', () => {
  expect(fill('{name} for {amount} {x}', { name: '{amount}', amount: '$&' })).toBe('{amount} for $& {x}');
  expect(fill('{constructor}')).toBe('{constructor}');
});

test.each([
  ['price', '', 'text-empty'],
  ['price', '   ', 'text-empty'],
  ['price', 'x'.repeat(1001), 'text-too-long'],
  ['price', 'For {money}.', 'text-blank-unknown'],
  ['offers', 'For {amount}.', 'text-blank-unknown'],
] as const)('%s as “%s” is refused', (key, text, code) => {
  expect(refuseText(key, text)).toMatchObject({ code, field: key });
});

/** Source: Unicode CLDR, by Intl. The time is UTC, and says so. */
test('a moment is told in UTC', () => {
  expect(moment(Date.UTC(2026, 11, 3, 14, 5), 'en')).toBe('3 December 2026 at 14:05 UTC');
  expect(moment(Date.UTC(2026, 11, 3, 14, 5), 'de')).toContain('3. Dezember 2026');
});
