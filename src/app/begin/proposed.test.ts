import { expect, test } from 'vitest';
import { proposedFor } from './proposed';

// Regions and their currencies: ISO 4217 list one, of the entities Norway, Portugal, United Kingdom, Japan, United States.
test.each([
  ['nb-NO', 'NOK'],
  ['pt-PT', 'EUR'],
  ['en-GB', 'GBP'],
  ['ja', 'JPY'],
  ['en', 'USD'],
  ['de-CH', 'CHF'],
])('a browser in %s proposes %s', (language, currency) => {
  expect(proposedFor(language, 'Europe/Oslo')).toMatchObject({ homeCurrency: currency, zone: 'Europe/Oslo' });
});

test('figures are proposed as the language writes them', () => {
  expect(proposedFor('de-DE', 'UTC').numberStyle).toBe('1.234,50');
  expect(proposedFor('en-GB', 'UTC').numberStyle).toBe('1,234.50');
});

test('what is no language proposes the usual, and breaks nothing', () => {
  expect(proposedFor('not a language', 'UTC').homeCurrency).toBe('USD');
  expect(proposedFor('', 'UTC').homeCurrency).toBe('USD');
});
