import { expect, test } from 'vitest';
import type { Day } from '@/core/time';
import { readPriceList } from './readPriceList';

const rules = { currency: 'USD', from: '2026-11-24' as Day };

test('a price list has a row for each ending and a column for each action', () => {
  const prices = readPriceList(
    'Ending;Register;Renew;Restore;First year;Condition;2 years;From\n.com;11.18;11.18;113.80;0.99;one year only;19.90;2026-01-01\nco.uk;;8.40;;;;;',
    rules,
  );
  expect(prices).toMatchObject([
    {
      ending: 'com',
      action: 'register',
      yearMinor: 1118,
      firstYearMinor: 99,
      firstYearCondition: 'one year only',
      from: '2026-01-01',
    },
    { ending: 'com', action: 'renew', yearMinor: 1118, termTotals: { 2: 1990 }, firstYearMinor: null },
    { ending: 'com', action: 'restore', yearMinor: 11_380 },
    { ending: 'co.uk', action: 'renew', yearMinor: 840, currency: 'USD', from: '2026-11-24' },
  ]);
});

test.each([
  ['ending,colour\ncom,red', 'price-list-headings'],
  ['ending,renew\nnosuchending,5', 'ending-unknown'],
  ['ending,renew\ncom,-5', 'money-negative'],
  ['ending,renew,currency\ncom,5,QQQ', 'currency-unknown'],
])('%j is refused as a whole: %s', (text, code) => {
  expect(readPriceList(text, rules)).toMatchObject({ code });
});
