import { expect, test } from 'vitest';
import { rowIdIn, textIn, uuidIn } from './params';

test.each([
  ['7', 7],
  ['999999999', 999_999_999],
  ['0', 0],
  ['-1', 0],
  ['1e3', 0],
  ['9999999999', 0],
  ['12abc', 0],
  ['', 0],
])('row %j is %i', (text, id) => expect(rowIdIn(text)).toBe(id));

test.each([
  ['1b4e28ba-2fa1-11d2-883f-0016d3cca427', true],
  ['------------------------------------', false],
  ['1b4e28ba-2fa1-11d2-883f-0016d3cca42', false],
  ["' or 1=1", false],
])('%j is an id: %s', (text, is) => expect(uuidIn(text) !== null).toBe(is));

test('what cannot be decoded stays as it stands', () => {
  expect(textIn('m%C3%B6we.de')).toBe('möwe.de');
  expect(textIn('%zz%')).toBe('%zz%');
});
