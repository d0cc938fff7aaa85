import { By, Key } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { importAtOnce } from '@/usecases/imports/importAtOnce';
import { visitLedger } from '../bench/page';
import { portfolioCsv } from '../bench/portfolio';
import { emptyLedger, type TestLedger } from '../database/ledger';
import { tabBytes } from './memory';

/** All of them by `npm run soak`. */
const NAMES = process.env.SOAK ? 250_000 : 50_000;
const MOST_BYTES = 400e6;
const SAID = NAMES.toLocaleString('en');
const LIST = portfolioCsv(NAMES);

let ledger: TestLedger;
let page: Awaited<ReturnType<typeof visitLedger>>;
beforeAll(async () => {
  ledger = await emptyLedger();
  await importAtOnce(ledger, {
    content: Buffer.from(LIST),
    account: null,
    dateOrder: null,
    fullList: false,
    allowPrivateEndings: false,
    dryRun: false,
  });
  page = await visitLedger(ledger.url);
}, 180_000);
afterAll(async () => {
  await page.close();
  await ledger.close();
});

test(`a ledger of ${SAID} names is opened, filtered, sorted and moved, and keeps to its memory`, async () => {
  const { visitor } = page;
  const { driver } = visitor;
  const shown = () => driver.executeScript<string[]>(SHOWN);
  await visitor.go('/ledger');
  await visitor.see(`${SAID} names`);
  await driver.wait(async () => (await shown()).length > 10, 10_000, 'no rows');

  const kelp = LIST.split('\n').filter((row) => (row.split(',')[0] ?? '').includes('kelpk')).length;
  await visitor.fill('Any part of a name', 'kelpk');
  await visitor.see(`${kelp.toLocaleString('en')} of ${SAID} names`);
  await driver.wait(async () => (await shown()).every((name) => name.includes('kelpk')), 10_000, 'rows of others');
  await (await visitor.field('Any part of a name')).sendKeys(Key.chord(Key.CONTROL, 'a'), Key.BACK_SPACE);
  await visitor.see(`${SAID} names`);

  const [first] = await shown();
  // A week each.
  await driver.executeScript('document.activeElement?.blur()');
  for (let i = 0; i < 20; i += 1) await visitor.keys(']');
  await visitor.see('13 Apr 2027');
  await driver.wait(async () => (await shown())[0] !== first, 10_000, 'the names that are first stayed the same');

  const heading = await driver.findElement(By.xpath("//*[@role='columnheader'][contains(normalize-space(.), 'Name')]"));
  await heading.click();
  const names = LIST.split('\n')
    .slice(1, -1)
    .map((row) => row.split(',')[0] ?? '');
  const [least] = names.sort();
  await driver.wait(async () => (await shown())[0] === least, 10_000, `${least} is not first`);

  const bytes = await tabBytes(driver);
  expect(bytes).toBeLessThan(MOST_BYTES);
  expect(await visitor.consoleErrors()).toEqual([]);
});

/** The names of the rows that are drawn, from the top. */
const SHOWN = `return [...document.querySelectorAll('[role=gridcell][data-column="1"]')].map((cell) => cell.textContent.trim())`;
