import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { wantNames } from '@/usecases/acquiring/wanted';
import { startApp, type TestApp } from './app';

/** Every place, at three widths, by day and by night: no finding of axe, and on a telephone nothing moves sideways. */
let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true, practice: true });
  await wantNames(app.ledger, {
    names: [{ name: 'ternbeacon.com' }, { name: 'wrack.me', typed: 'wreck.me' }, { name: 'möwenkai.de' }],
    purpose: 'gulls',
  });
});
afterAll(() => app.close());

const WIDTHS = [
  { width: 1280, height: 800 },
  { width: 1024, height: 768 },
  { width: 390, height: 800 },
];

/** Texts in a column so narrow that they run down it: more than four lines of few letters. */
const SQUEEZED = `
  return [...document.querySelectorAll('main :is(td, th, li, p, dd)')].filter((one) => one.checkVisibility()).flatMap((one) => {
    const style = getComputedStyle(one);
    const wide = one.clientWidth - parseFloat(style.paddingLeft) - parseFloat(style.paddingRight);
    const range = document.createRange();
    range.selectNodeContents(one);
    const lines = range.getBoundingClientRect().height / (parseFloat(style.lineHeight) || 20);
    const text = one.innerText.trim();
    return text.length >= 12 && wide < 100 && lines > 3.5 && lines > text.length * 0.09 ? [text.slice(0, 40)] : [];
  })`;

/** What stands in a cell of a table and runs over its edge, onto its neighbour or off the page. */
const RUNS_OVER = `
  return [...document.querySelectorAll('main :is(td, th)')].filter((one) => one.checkVisibility()).flatMap((one) => {
    const edge = one.getBoundingClientRect().right;
    const over = [...one.querySelectorAll('button, a, span, svg')].filter((part) =>
      part.checkVisibility() && !part.closest('.visually-hidden') && part.getBoundingClientRect().right - parseFloat(getComputedStyle(part).paddingRight) > edge + 1);
    return over.length > 0 && getComputedStyle(one).overflowX === 'visible' ? [one.innerText.trim().slice(0, 40)] : [];
  })`;

const CHARTS = ['day', 'night'] as const;
const EVERY_LOOK = WIDTHS.flatMap((one) => CHARTS.map((chart) => ({ ...one, chart })));
/** Each width and each chart; every pair of them where time is taken for it. The telephone comes last: it is measured as well. */
const LOOKS = process.env.SOAK
  ? EVERY_LOOK
  : EVERY_LOOK.filter(({ width, chart }) => (chart === 'night') === (width === 1024));

const COLOUR_RULES = ['color-contrast', 'link-in-text-block'];

describe('at 1280, 1024 and 390 px, by day and by night', () => {
  test.each([
    ['/today', 'would save them.'],
    ['/unknown', 'cannot be foretold'],
    ['/ledger', 'restore by 26 Nov'],
    ['/ledger/add', 'See what would be added'],
    ['/ledger/kelpkiln.com', 'How it lapsed'],
    ['/renewals', 'First that fails'],
    ['/rescue', 'In danger:'],
    ['/rescue/all', 'may bring'],
    ['/record', 'Ask the registries'],
    ['/record/kelpkiln.com', 'What the record says'],
    ['/record/mails', 'Paste a mail'],
    ['/prices', 'Ending'],
    ['/transfers', 'No name is on its way.'],
    ['/transfers/plan', 'Left where they are'],
    ['/acquire', 'candidates'],
    ['/acquire/shortlist', 'In all'],
    ['/acquire/registered', 'To the shortlist'],
    ['/acquire/waiting', 'Ask the holder of a name'],
    ['/selling', 'Auctions that close'],
    ['/selling/listings', 'listings'],
    ['/selling/sold', 'Profit by year'],
    ['/selling/comparables', 'Like this name'],
    ['/selling/names/kelpkiln.com', 'kelpkiln.com'],
    ['/selling/sales/1', 'Statement of sale'],
    ['/prospects', 'Assumptions'],
    ['/prospects/names', 'not worth their next renewal'],
    ['/prospects/drop-list', 'of coming charges'],
    ['/prospects/kept', 'kept.'],
    ['/prospects/kept/1', 'Said to be'],
    ['/prospects/review', 'names cost'],
    ['/prospects/review/entries?year=2026&part=price', 'Prices of sales in 2026'],
    ['/prospects/review/paper?year=2021', 'What it was for'],
    ['/setup/accounts', 'How it charges'],
    ['/setup/accounts/1', 'is an account at'],
    ['/setup/policies', 'Its names are'],
    ['/setup/marketplaces', 'Answers by rule'],
    ['/setup/marketplaces/1', 'sells in'],
    ['/setup/shop', 'Blocked senders'],
    ['/setup/money', 'Home currency'],
    ['/setup/mail', 'Reminders by mail'],
    ['/setup/records', 'RDAP bootstrap file'],
    ['/setup/people', 'The first owner'],
    ['/setup/people/audit', 'Nothing stands here yet.'],
    ['/setup/programs', 'Tell a program'],
    ['/setup/backup', 'Restore from a file'],
    ['/setup/log', 'Nothing went wrong lately'],
    ['/setup/practice', 'Faults'],
  ])('%s', async (path, seen) => {
    const { visitor } = app;
    const size = (one: (typeof WIDTHS)[number]) =>
      visitor.tell('Emulation.setDeviceMetricsOverride', { ...one, deviceScaleFactor: 1, mobile: false });
    await size(WIDTHS[0] as (typeof WIDTHS)[number]);
    await visitor.go(path);
    await visitor.see(seen);
    const found: string[] = [];
    for (const { chart, ...one } of LOOKS) {
      await size(one);
      for (const text of await visitor.driver.executeScript<string[]>(SQUEEZED))
        found.push(`${one.width} squeezed: ${text}`);
      for (const text of await visitor.driver.executeScript<string[]>(RUNS_OVER))
        found.push(`${one.width} runs over: ${text}`);
      await visitor.driver.executeScript('document.documentElement.dataset.theme = arguments[0]', chart);
      // By night only the colours are others.
      const rules = chart === 'night' ? COLOUR_RULES : undefined;
      for (const finding of await visitor.axe(rules)) found.push(`${one.width} ${chart}: ${finding}`);
    }
    expect(found).toEqual([]);
    const [sideways, top] = await visitor.driver.executeScript<[number, number]>(
      "return [document.scrollingElement.scrollWidth - document.documentElement.clientWidth, document.querySelector('main').getBoundingClientRect().top]",
    );
    // On a telephone nothing moves sideways, and what a place is about begins near the top.
    expect(sideways).toBeLessThanOrEqual(0);
    expect(top).toBeLessThanOrEqual(120);
  });
});
