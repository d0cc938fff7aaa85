import { expect, test } from 'vitest';
import { letterNotTaken } from './letters';

test.each([
  ['möwenkai', { ending: 'de', letters: null }, null],
  ['möwenkai', { ending: 'uk', letters: null }, 'ö'],
  ['möwenkai', { ending: 'uk', letters: 'ö' }, null],
  ['möwenkai', { ending: 'com', letters: null }, null],
  ['möwenkai', { ending: 'com', letters: '' }, 'ö'],
  ['чайка', { ending: 'de', letters: null }, 'ч'],
  ['kelp-kiln7', { ending: 'nl', letters: null }, null],
])('%s under %j', (label, policy, letter) => {
  expect(letterNotTaken(label, policy)).toBe(letter);
});
