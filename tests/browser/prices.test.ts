import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { saveRate } from '@/usecases/rates/rates';
import { startApp, type TestApp } from './app';

let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true });
});
afterAll(() => app.close());

test('what a name costs over years: where accounts cross, and the cheap first year that becomes dear', async () => {
  const { visitor } = app;
  await visitor.go('/prices');
  // Pounds and euros have no rate yet, and say so in place of a figure.
  await visitor.see('no rate into your currency');
  for (const [currency, factor] of [
    ['EUR', 1.09],
    ['GBP', 1.28],
  ] as const)
    expect(await saveRate(app.ledger, { from: '2026-01-01', currency, into: 'USD', factor })).toBe(true);
  await visitor.go('/prices');
  await visitor.see('Prices in other currencies by these rates: 1 EUR = 1.09 USD (1 Jan), 1 GBP = 1.28 USD (1 Jan).');
  await visitor.choose('Over', '2 years');
  // By keyboard: the ending's button is pressed with Enter.
  const com = await visitor.driver.findElement({ xpath: "//button[normalize-space(.)='.com']" });
  await com.sendKeys(Key.ENTER);
  await visitor.see('.com over 2 years');
  await visitor.see('From 2 years on Fernhithe costs less than Larkhythe.');
  await visitor.press('.co');
  await visitor.see('Quaymark: a cheap first year that becomes dear, $12.00 and then $29.00 a year.');
  await visitor.see('12.00, then 29.00 on 24 Nov 2027');
  expect(await visitor.axe()).toEqual([]);
});

test('a name that is held: the cheapest way moves it where that is cheaper', async () => {
  const { visitor } = app;
  await visitor.go('/prices');
  await visitor.choose('For', 'a name held at Bollard');
  await visitor.press('.com');
  await visitor.see('transfer, with one year at Quaymark');
  await visitor.see('at the next charge');
});

test('a pasted price list is seen before it is written; its condition counts in every comparison', async () => {
  const { visitor } = app;
  await visitor.go('/setup/accounts');
  await visitor.press('Quaymark');
  await visitor.click('Bring in a price list');
  await visitor.fill('Price list', 'ending,register,first year,condition,renew\nkelp,x,,,');
  await visitor.press('See what it brings');
  await visitor.see('Line 2:');
  await visitor.fill('Price list', 'ending,register,first year,condition,renew\ncom,16.40,1.10,at least 3 years,16.40');
  await visitor.press('See what it brings');
  await visitor.see('first year $1.10 (at least 3 years)');
  await visitor.see('changed');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Write 2 prices');
  await visitor.see('2 prices brought in.');

  await visitor.go('/prices');
  await visitor.choose('Over', '3 years');
  await visitor.press('.com');
  await visitor.see('.com over 3 years');
  // 1.10 and twice 16.40, with the registry fee of three years, all to be paid at once. What comes then has risen as the list has.
  await visitor.see('34.50, then');
  await visitor.see('on 24 Nov 2029');
  await visitor.click('How each prices .com, and your notes');
  await visitor.see('First price: at least 3 years');
  await visitor.fill('Rises by, percent a year at Wrackgate', '4');
  await visitor.keys(Key.ENTER);
  await visitor.see('Renewals: 4 % a year, as you said');
});

test('a file of rates is seen before it is written, and what was not comparable is', async () => {
  const { visitor } = app;
  await visitor.go('/setup/marketplaces');
  await visitor.click('Bring in a file of rates');
  await visitor.fill('Rates', 'name,worth\nEUR,1.09');
  await visitor.press('See what it brings');
  await visitor.see('Rates need columns');
  await visitor.fill('Rates', 'Date,USD,GBP,JPY\n2026-11-20,1.0865,0.8342,161.25');
  await visitor.press('See what it brings');
  await visitor.see('On 20 Nov 2026: 1 EUR = 1.0865 USD, 1 EUR = 0.8342 GBP.');
  await visitor.see('Left out: one currency in which nothing here is priced.');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Write 2 rates');
  await visitor.see('2 rates brought in.');
  await visitor.see('1 EUR = 0.8342 GBP');
});
