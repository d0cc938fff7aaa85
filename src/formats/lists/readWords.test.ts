import { expect, test } from 'vitest';
import { readPhrases, readWholeNumbers, readWords } from './readWords';

test.each([
  ['USD, EUR', ['USD', 'EUR']],
  [' USD\nEUR;GBP  USD ', ['USD', 'EUR', 'GBP']],
  ['', []],
])('words of %j', (text, words) => expect(readWords(text)).toEqual(words));

test.each([
  ['costs too much, sold elsewhere', ['costs too much', 'sold elsewhere']],
  ['Boats\nCoast ; Boats\n', ['Boats', 'Coast']],
])('phrases of %j', (text, phrases) => expect(readPhrases(text)).toEqual(phrases));

test('what is no whole number is kept as it was typed, to be refused', () => {
  expect(readWholeNumbers('4, 10 21')).toEqual([4, 10, 21]);
  expect(readWholeNumbers('4 1.5 -3 ten')).toEqual([4, '1.5', '-3', 'ten']);
});
