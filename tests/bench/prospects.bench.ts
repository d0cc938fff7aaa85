import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type * as Ledger from '@/core/ledger';
import type * as SampleLedger from '@/core/ledger/sampleLedger';
import type * as Odds from '@/core/odds';
import type * as Prospects from '@/core/prospects';
import type * as Sample from '@/core/prospects/sampleBook';
import { instant } from '@/core/time';
import { best, line } from './portfolio';

const report: string[] = [];
let prospects: typeof Prospects &
  typeof Sample &
  typeof Ledger &
  typeof SampleLedger &
  Pick<typeof Odds, 'USUAL_ASSUMPTIONS'>;
let folder = '';

/** Bundled as the worker is: modules that a test runner has taken apart are twice as slow. */
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'prospects-'));
  const outfile = join(folder, 'prospects.mjs');
  await build({
    stdin: {
      contents:
        "export * from '@/core/prospects'; export * from '@/core/prospects/sampleBook'; export * from '@/core/ledger'; export * from '@/core/ledger/sampleLedger'; export { USUAL_ASSUMPTIONS } from '@/core/odds';",
      resolveDir: process.cwd(),
      loader: 'ts',
    },
    bundle: true,
    format: 'esm',
    platform: 'node',
    tsconfig: 'tsconfig.json',
    outfile,
    logLevel: 'error',
  });
  prospects = await import(/* @vite-ignore */ pathToFileURL(outfile).href);
});
afterAll(() => {
  rmSync(folder, { recursive: true, force: true });
  console.log(`\n${report.join('\n')}\n`);
});

const GROUPS = 8;
const RATE = { sales: 2, nameYears: 100 };

/** Names of eight groups, each charged once a year for ten years, and sold for a share of what is asked. */
function sample(count: number) {
  const { bookOf, scheduleOf, wholeCourse, monthScale } = prospects;
  const names = Array.from({ length: count }, (_, i) => ({
    group: Math.floor((i * GROUPS) / count),
    asking: 80_000 + i,
    until: 120,
    charges: Array.from({ length: 10 }, (_, k) => [(i % 12) + 12 * k, 1138 + (i % 40)] as const),
  }));
  const book = bookOf(
    names,
    Array.from({ length: GROUPS }, () => RATE),
    { median: 0.6, sigma: 0.5 },
  );
  const schedule = scheduleOf(names);
  const courses = Array.from({ length: 4 }, (_, i) => wholeCourse(`course ${i}`, schedule, book));
  return { book, courses, scale: monthScale(instant('2026-11-24T09:12:00Z')), openingMinor: 1e7, seed: 1 };
}

/** A plain loop over paths: as many sales as there are, each a random number and a sum in its month; nothing else. */
function plainLoop(names: number, paths: number): number {
  const sales = Math.round(names * (1 - (100 / 110) ** 2));
  const cash = new Float64Array(120);
  for (let path = 0; path < paths; path += 1)
    for (let sale = 0; sale < sales; sale += 1) {
      const month = Math.floor(-Math.log(Math.random()) * 60) % 120;
      cash[month] = (cash[month] as number) + 50_000;
    }
  return cash[0] as number;
}

test.each([
  [10_000, 5000, 1, 'goal 2 s'],
  [10_000, 5000, 4, 'goal 4 s'],
  [250_000, 1000, 1, 'goal 6 s'],
  [400, 5000, 4, 'a small office'],
] as const)('%i names over ten years on %i paths, %i strategies (%s)', async (count, paths, strategies, goal) => {
  const { book, courses, ...rest } = sample(count);
  const { fanOf, simulated } = prospects;
  const play = () =>
    simulated({ book, courses: courses.slice(0, strategies), paths, ...rest }).map((outcome) => fanOf(outcome, 120, 0));
  expect(play()[0]?.namesSold).toBeGreaterThan(count * 0.15);
  const floor = await best(2, () => plainLoop(count, paths));
  const words = strategies === 1 ? 'as it stands' : `${strategies} strategies`;
  report.push(
    line(
      `${count.toLocaleString('en')} names × ${paths.toLocaleString('en')} paths, ${words} (${goal})`,
      await best(2, play),
      'a plain loop over their sales',
      floor,
    ),
  );
});

/** A ledger of so many names at one account, renewed by themselves but for a third, most with an asking price. */
function ledgerOf(count: number) {
  const { nameWith, QUAYMARK, rulesWith, indexRules, projectLedger, LedgerDay, TODAY } = prospects;
  const names = Array.from({ length: count }, (_, i) =>
    nameWith(
      `name${String(i).padStart(6, '0')}.com`,
      new Date(TODAY + (3 + ((i * 97) % 700)) * 86_400_000).toISOString(),
      {
        setting: i % 3 === 0 ? 'off' : 'on',
        asking: i % 7 === 0 ? null : { minor: 20_000 + 9000 * (i % 11), currency: 'USD' },
        purpose: i % 19 === 0 ? 'in use' : 'for sale',
      },
    ),
  );
  const index = indexRules(rulesWith({ accounts: [{ ...QUAYMARK, balanceMinor: 1e12 }] }));
  return new LedgerDay(projectLedger(index, names, TODAY), TODAY);
}

test.each([400, 50_000, 250_000])('what comes before the paths, of %i names', async (count) => {
  const { schedulesOf, offerBook, valuing, rankNames, everyRow, USUAL_ASSUMPTIONS, NO_OFFER_FACTS } = prospects;
  const today = ledgerOf(count);
  const asked = { facts: NO_OFFER_FACTS, assumptions: USUAL_ASSUMPTIONS, view: null };
  const floor = await best(2, () => everyRow(today.projection));
  const told = (what: string, ms: number) =>
    report.push(line(`${count.toLocaleString('en')} names: ${what}`, ms, 'reading every row', floor));
  told('their charges over ten years, twice', await best(2, () => schedulesOf(today, USUAL_ASSUMPTIONS)));
  told('the book of offers', await best(2, () => offerBook(today, asked)));
  const judge = valuing(today, asked);
  let ranked = 0;
  told('every name judged and ranked', await best(2, () => (ranked = rankNames(judge, NO_OFFER_FACTS).order.length)));
  expect(ranked).toBe(count);
});
