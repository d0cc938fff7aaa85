import { setTimeout as wait } from 'node:timers/promises';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { portfolioCsv } from '../bench/portfolio';
import { type Program, startProgram } from './program';

/**
 * All of them by `npm run soak`, on a machine that does nothing else: there nobody waits over a second. A part of them takes the same ways
 * beside the other tests, where the machine may be others' for seconds.
 */
const [NAMES, LONGEST_MS] = process.env.SOAK ? [250_000, 1000] : [40_000, 4000];
const READERS = 50;
/** The new ledger is read and played forward once, for all who ask. */
const LONGEST_AFTER_MS = 15_000;
/** A reader looks at what has come, then asks again. */
const PAUSE_MS = 500;

const LIST = portfolioCsv(NAMES);

let program: Program;
beforeAll(async () => {
  program = await startProgram(true);
  for (const target of READ) await program.ask(target);
}, 120_000);
afterAll(() => program.close());

const OF_NAMES = /names|ledger/;
const READ = [
  '/api/v1/names?limit=100',
  '/api/v1/names/kelpkiln.com',
  '/api/v1/openapi.json',
  '/ledger/data',
  '/renewals',
];

test(`while ${NAMES.toLocaleString('en')} names come in, ${READERS} others read, and none waits over ${LONGEST_MS} ms`, async () => {
  const waits: { readonly target: string; readonly ms: number; readonly since: number }[] = [];
  let isOver = false;
  const readers = Array.from({ length: READERS }, async (_, i) => {
    await wait(i * 10);
    for (let n = i; !isOver; n += 1) {
      const since = performance.now();
      const target = READ[n % READ.length] as string;
      const { status } = await program.ask(target);
      waits.push({ target, ms: performance.now() - since, since });
      expect(status).toBe(200);
      await wait(PAUSE_MS);
    }
  });
  await wait(2000);
  const writtenAt = () =>
    program.ledger.database
      .query<{ n: number }>('select count(*)::int as n from names')
      .then(({ rows }) => ((rows[0]?.n ?? 0) > NAMES ? performance.now() : null));
  let written: number | null = null;
  const watching = (async () => {
    while (written === null) {
      written = await writtenAt();
      await wait(50);
    }
  })();
  const answer = await program.ask('/api/v1/names/import', {
    method: 'POST',
    headers: { 'content-type': 'text/csv' },
    body: LIST,
  });
  expect(answer.status).toBe(200);
  expect(JSON.parse(answer.text)).toMatchObject({ new: NAMES });
  await watching;
  await wait(3000);
  isOver = true;
  await Promise.all(readers);
  const longest = (some: typeof waits) => Math.max(0, ...some.map(({ ms }) => ms));
  // Who asks just before they are written may be answered after it.
  const cut = (written ?? 0) - LONGEST_MS;
  expect(longest(waits.filter(({ since }) => since < cut))).toBeLessThan(LONGEST_MS);
  // Whoever asks for names once they are there waits until they have been read; nobody else does.
  const after = waits.filter(({ since }) => since >= cut);
  expect(longest(after)).toBeLessThan(LONGEST_AFTER_MS);
  expect(longest(after.filter(({ target }) => !OF_NAMES.test(target)))).toBeLessThan(LONGEST_MS);
}, 180_000);
