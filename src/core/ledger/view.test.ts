import fc from 'fast-check';
import { expect, test } from 'vitest';
import { AUTO_RENEW_SETTINGS } from '../funding';
import { PHASES } from '../lifecycle';
import { PURPOSES } from './data';
import { EVERY_NAME, queryFromView, SORT_KEYS, viewFromQuery } from './view';

const maybe = <T>(value: fc.Arbitrary<T>) => fc.option(value, { nil: null });
const money = maybe(fc.integer({ min: 0, max: 1e9 }));
const aView = fc.record({
  text: fc.stringMatching(/^[a-z0-9. ]{0,20}$/),
  accountIds: fc.uniqueArray(fc.integer({ min: 1, max: 99 })),
  endings: fc.uniqueArray(fc.constantFrom('com', 'co.uk', 'de')),
  phases: fc.uniqueArray(fc.constantFrom(...PHASES)),
  settings: fc.uniqueArray(fc.constantFrom(...AUTO_RENEW_SETTINGS)),
  purposes: fc.uniqueArray(fc.constantFrom(...PURPOSES)),
  tags: fc.uniqueArray(fc.stringMatching(/^[a-z]{1,8}$/)),
  dueWithinDays: maybe(fc.integer({ min: 0, max: 3660 })),
  costFrom: money,
  costTo: money,
  askingFrom: money,
  askingTo: money,
  forSale: maybe(fc.boolean()),
  neverLost: maybe(fc.boolean()),
  dateless: fc.boolean(),
  sort: fc.constantFrom(...SORT_KEYS),
  descending: fc.boolean(),
});

test('a view survives its way through a URL', () => {
  fc.assert(
    fc.property(aView, (view) => {
      expect(viewFromQuery(new URLSearchParams(queryFromView(view).toString()))).toEqual(view);
    }),
  );
});

test('the plain view is the empty query', () => {
  expect(queryFromView(EVERY_NAME).toString()).toBe('');
  expect(viewFromQuery(new URLSearchParams())).toEqual(EVERY_NAME);
});

test('what a query says that is not understood is left out', () => {
  const view = viewFromQuery(
    new URLSearchParams('phase=late,afloat&auto=perhaps&within=-5&costFrom=1e9&sort=drop table&forSale=maybe'),
  );
  expect(view).toEqual({ ...EVERY_NAME, phases: ['late'] });
});
