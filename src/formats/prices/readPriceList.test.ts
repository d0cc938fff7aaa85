import { expect, test } from 'vitest';
import type { Day } from '@/core/time';
import { readPriceList } from './readPriceList';

const rules = { currency: 'USD', numberStyle: '1,234.50', from: '2026-11-24' as Day, source: 'pasted' } as const;

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
      firstYearCondition: { leastYears: 1, greatestYears: 1 },
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
  ['ending,renew,currency\ncom,€5,CAD', 'currency-contradicts'],
  ['ending,renew,2 years\ncom,€5,$9', 'currency-contradicts'],
  ['ending;restore\ncom;1.200', 'amounts-ambiguous'],
])('%j is refused as a whole: %s', (text, code) => {
  expect(readPriceList(text, rules)).toMatchObject({ code });
});

test('cents behind a comma are seen in the list itself', () => {
  expect(readPriceList('ending;renew;restore\ncom;11,38;1.200', rules)).toMatchObject([
    { yearMinor: 1138 },
    { yearMinor: 120_000 },
  ]);
});

test('terms of a first registration, extras by their name, what is included and where it was seen', () => {
  const prices = readPriceList(
    'ending,register,register 3 years,first year,condition,renew,extra mailbox,privacy,included,source\ncom,16.40,33.90,1.10,at least 3 years; new customers,16.40,24,0,mail forwarding,their page of prices',
    rules,
  );
  expect(prices).toMatchObject([
    {
      action: 'register',
      termTotals: { 3: 3390 },
      firstYearMinor: 110,
      firstYearCondition: { leastYears: 3, newCustomers: true, words: '' },
      included: 'mail forwarding',
      source: 'their page of prices',
    },
    { action: 'renew', termTotals: null, item: '', yearMinor: 1640 },
    { action: 'extra', item: 'mailbox', yearMinor: 2400, firstYearMinor: null },
    { action: 'privacy', yearMinor: 0 },
  ]);
  expect(readPriceList('ending,renew\ncom,9', rules)).toMatchObject([{ source: 'pasted', included: '' }]);
});
