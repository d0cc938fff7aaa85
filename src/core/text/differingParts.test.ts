import fc from 'fast-check';
import { expect, test } from 'vitest';
import { differingParts } from './differingParts';

const marked = (text: string, other: string) =>
  differingParts(text, other)
    .filter(({ differs }) => differs)
    .map((part) => part.text.trim());

test('the name server that is another one is marked, whatever the order', () => {
  expect(marked('ns1.parkwick.test ns2.quaymark.test', 'ns2.quaymark.test ns1.quaymark.test')).toEqual([
    'ns1.parkwick.test',
  ]);
});

test('of two days only what differs is marked', () => {
  expect(marked('6 Nov 2027', '6 Nov 2026')).toEqual(['2027']);
  expect(marked('6 Nov 2027', '6 Nov 2027')).toEqual([]);
});

test('case is no difference, nothing against something is all of it', () => {
  expect(marked('Quaymark Names BV', 'quaymark names bv')).toEqual([]);
  expect(marked('not registered', '')).toEqual(['not registered']);
  expect(differingParts('', 'anything')).toEqual([]);
});

test('the parts together are the text, for any two texts', () => {
  fc.assert(
    fc.property(fc.string(), fc.string(), (text, other) => {
      expect(
        differingParts(text, other)
          .map((part) => part.text)
          .join(''),
      ).toBe(text);
    }),
  );
});
