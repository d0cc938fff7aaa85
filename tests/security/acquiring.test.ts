import { afterAll, beforeAll, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { beginApproach, sayApproach } from '@/usecases/acquiring/approaches';
import { bringInComingFree } from '@/usecases/acquiring/comingFree';
import { saveIdeas } from '@/usecases/acquiring/ideas';
import { wantNames } from '@/usecases/acquiring/wanted';
import { type Program, startProgram } from './program';

let program: Program;
beforeAll(async () => {
  program = await startProgram(true);
}, 60_000);
afterAll(() => program.close());

const count = async (table: string) =>
  Number((await program.ledger.database.query<{ n: number }>(`select count(*) as n from ${table}`)).rows[0]?.n);

test.each([
  '',
  '-1',
  '0',
  '1e99',
  '99999999999999999999',
  'abc',
  "1'; drop table idea_sets; --",
  '1 or 1=1',
  '[object Object]',
])('a set %j that is none is told as such, and the program goes on', async (set) => {
  const data = await program.ask(`/acquire/data?set=${encodeURIComponent(set)}`);
  expect(data.status).toBeGreaterThanOrEqual(400);
  expect(data.status).toBeLessThan(500);
  expect(await count('idea_sets')).toBeGreaterThan(0);
  expect((await program.ask('/acquire')).status).toBe(200);
});

test('a page of another site makes nobody ask, and reads no candidates', async () => {
  const evil = { origin: 'http://evil.test', 'sec-fetch-site': 'cross-site' };
  expect((await program.ask('/acquire/ask?set=1', { method: 'POST', headers: evil })).status).toBe(403);
  expect((await program.ask('/acquire/data?set=1', { headers: evil })).status).toBe(403);
});

test('what is typed as markup is shown as text, wherever it is shown', async () => {
  const markup = '<img src=x onerror=alert(1)>';
  await saveIdeas(program.ledger, null, {
    label: markup,
    ideas: 'wrack',
    patterns: ['{a}'],
    endings: ['com'],
    heldYears: 5,
  });
  await wantNames(program.ledger, { names: [{ name: 'wrackloft.com', typed: markup }], purpose: markup, note: markup });
  const id = await beginApproach(program.ledger, {
    name: 'wrackloft.net',
    holder: markup,
    currency: 'USD',
    note: markup,
  });
  expect(isRefusal(id)).toBe(false);
  await sayApproach(program.ledger, { id, isOurs: false, text: markup });
  await bringInComingFree(program.ledger, 'wrackkiln.com,2027-03-09', markup);
  for (const page of ['/acquire', '/acquire/shortlist', '/acquire/waiting', '/acquire/registered', '/today'])
    expect([page, (await program.ask(page)).text.includes('<img src=x')]).toEqual([page, false]);
});

test.each([
  ['a million words', 'w '.repeat(1_000_000)],
  ['one endless word', 'w'.repeat(200_001)],
  ['control characters', 'wrack\u0000loft'],
  ['every pattern of many words', Array.from({ length: 3000 }, (_, i) => `w${i}`).join(' ')],
])('%s is refused in time, and nothing of it is kept', async (_what, ideas) => {
  const before = await count('idea_sets');
  const start = performance.now();
  const patterns = ['{a}{b}{c}', '{a}{b}', '{a}-{b}'];
  expect(isRefusal(await saveIdeas(program.ledger, null, { ideas, patterns, endings: ['com'], heldYears: 5 }))).toBe(
    true,
  );
  expect(performance.now() - start).toBeLessThan(5000);
  expect(await count('idea_sets')).toBe(before);
});

test('a list of a hundred thousand rows is told by its rows, one more is refused', async () => {
  const rows = (length: number) => Array.from({ length }, (_, i) => `wrack${i}.com,2027-03-09`).join('\n');
  expect(await bringInComingFree(program.ledger, rows(100_001), 'harbour list')).toMatchObject({
    code: 'too-many-rows',
  });
  expect(await bringInComingFree(program.ledger, `${rows(20_000)}\nno name,\n`, 'harbour list')).toMatchObject({
    added: 20_000,
    refused: [{ line: 20_001 }],
  });
});
