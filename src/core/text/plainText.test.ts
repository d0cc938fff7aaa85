import { expect, test } from 'vitest';
import { isOneLine, refuseText } from './plainText';

test.each([
  ['harbour & craft, 5 €', null],
  ['two\nlines\tand a tab', null],
  ['مرفأ', null],
  ['a\u0000b', 'text-unreadable'],
  ['\u001b[31m', 'text-unreadable'],
  ['half a pair \ud83d', 'text-unreadable'],
  ['whole \ud83d\ude00', null],
  ['moc.elpmaxe\u202e', 'text-turns-direction'],
  ['\u2066isolated\u2069', 'text-turns-direction'],
])('%j: %s', (text, code) => expect(refuseText(text)?.code ?? null).toBe(code));

test.each([
  ['one line', true],
  ['two\nlines', false],
  ['two\u2028lines', false],
  ['a\ttab', false],
])('%j is one line: %s', (text, is) => expect(isOneLine(text)).toBe(is));
