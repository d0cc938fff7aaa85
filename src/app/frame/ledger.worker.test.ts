import { afterAll, beforeAll, beforeEach, expect, test, vi } from 'vitest';
import { columnsOf, EVERY_NAME, type LedgerName, type LedgerRules } from '@/core/ledger';
import { GENERIC, nameWith, QUAYMARK, rulesWith, TODAY } from '@/core/ledger/sampleLedger';
import { amount } from '@/core/money';
import { NO_OFFER_FACTS } from '@/core/prospects';
import { packed } from '@/core/table';
import { addDays, type Instant } from '@/core/time';
import type { LedgerWorker } from './ledger.worker';

const exposed = vi.hoisted(() => ({ api: null as unknown }));
// Other files go on in the same process.
afterAll(() => {
  vi.unstubAllGlobals();
});
vi.mock('comlink', () => ({ expose: (api: unknown) => (exposed.api = api) }));

const NAMES: readonly LedgerName[] = [
  nameWith('calm.com', '2027-11-08T00:00:00Z', { setting: 'on' }),
  nameWith('dateless.com', null),
  nameWith('deleted.com', '2027-06-01T00:00:00Z', { observed: { phase: 'redemption', at: addDays(TODAY, -3) } }),
  nameWith('lapsing.com', '2026-12-09T00:00:00Z', { asking: amount(380_000, 'USD'), tags: ['sea'] }),
  nameWith('mail.com', '2027-03-01T00:00:00Z', { setting: 'on', confirmMailBy: addDays(TODAY, 9) }),
  nameWith('unsure.com', '2026-12-20T00:00:00Z', { setting: 'unknown', requested: 'on' }),
];

let worker: LedgerWorker;
let answers: { rules: LedgerRules; names: readonly LedgerName[]; revision: number };
let asked = 0;

/** The application, as far as the worker asks it. */
async function answered(url: string): Promise<Response> {
  if (url === '/prospects/data') return new Response(packed({ facts: NO_OFFER_FACTS, view: null }), { status: 200 });
  asked += 1;
  const body = {
    revision: answers.revision,
    asOf: new Date(TODAY).toISOString(),
    rules: answers.rules,
    names: columnsOf(answers.names),
    changed: null,
    openRenewals: 2,
    transfers: 3,
    acquiring: 2,
    selling: 3,
  };
  return new Response(packed(body), { headers: { etag: `"${answers.revision}"` } });
}

beforeAll(async () => {
  vi.stubGlobal('fetch', answered);
  await import('./ledger.worker');
  worker = exposed.api as LedgerWorker;
});

let revision = 0;
beforeEach(async () => {
  revision += 1;
  answers = { rules: rulesWith(), names: NAMES, revision };
  await worker.load();
});

test('the ledger is fetched once for a revision, and read again when it has changed', async () => {
  const before = asked;
  const meta = await worker.load();
  expect(meta).toMatchObject({ names: 6, revision, selling: 3, unconfirmed: 3 });
  expect(await worker.load()).toBe(meta);
  expect(asked).toBe(before + 2);
  answers = { ...answers, names: NAMES.slice(0, 2), revision: revision + 1000 };
  expect((await worker.load()).names).toBe(2);
});

test('that a later state can be asked for soon is known until it has been', async () => {
  const usual = globalThis.fetch;
  const behind = new Headers({ etag: `"${revision}"`, 'ledger-behind': 'true' });
  vi.stubGlobal('fetch', async () => new Response(null, { status: 304, headers: behind }));
  const meta = await worker.load();
  expect(meta).toMatchObject({ revision, isBehind: true, names: 6 });
  expect(await worker.load()).toBe(meta);
  vi.stubGlobal('fetch', usual);
  expect(await worker.load()).toMatchObject({ revision, isBehind: false });
});

test('later only what has changed comes, and stands among what was there', async () => {
  const asked: [string, HeadersInit | undefined][] = [];
  const usual = globalThis.fetch;
  const renamed = nameWith('aaa.com', '2027-02-01T00:00:00Z');
  const [, dateless] = NAMES;
  vi.stubGlobal('fetch', async (url: string, { headers }: RequestInit) => {
    asked.push([url, headers]);
    const body = {
      ...answers,
      asOf: new Date(TODAY).toISOString(),
      names: columnsOf([renamed]),
      // One has come, one has gone.
      changed: [renamed.id, dateless?.id],
      openRenewals: 2,
      transfers: 3,
      acquiring: 2,
      selling: 3,
    };
    return new Response(packed(body), { headers: { etag: '"own-77-1"' } });
  });
  await worker.load();
  expect(asked).toEqual([[`/ledger/data?since=${revision}`, { 'if-none-match': `"${revision}"` }]]);
  const labels = [renamed, ...NAMES].filter((name) => name !== dateless).map(({ ascii }) => ascii);
  expect(worker.everyName()).toEqual(labels);
  // Nothing has changed since: the answer has no body.
  vi.stubGlobal('fetch', async () => new Response(null, { status: 304 }));
  expect((await worker.load()).names).toBe(NAMES.length);
  expect(worker.everyName()).toEqual(labels);
  vi.stubGlobal('fetch', usual);
});

test('readings come one after the other: an answer that was asked for first never stands over a later one', async () => {
  const usual = globalThis.fetch;
  const waiting: (() => void)[] = [];
  let asks = 0;
  vi.stubGlobal('fetch', async (...args: Parameters<typeof fetch>) => {
    asks += 1;
    await new Promise<void>((go) => waiting.push(go));
    return usual(...args);
  });
  answers = { ...answers, revision: revision + 4000 };
  const [first, second] = [worker.load(), worker.load()];
  await vi.waitFor(() => expect(waiting).toHaveLength(1));
  expect(asks).toBe(1);
  waiting[0]?.();
  await first;
  await vi.waitFor(() => expect(waiting).toHaveLength(2));
  waiting[1]?.();
  await second;
  vi.stubGlobal('fetch', usual);
});

test('an answer that is none leaves what is known', async () => {
  const kept = await worker.load();
  vi.stubGlobal(
    'fetch',
    vi.fn(async () => new Response('', { status: 503 })),
  );
  await expect(worker.load()).rejects.toThrow('503');
  expect(worker.everyName()).toHaveLength(kept.names);
  vi.unstubAllGlobals();
  vi.stubGlobal('fetch', async () => new Response(null, { status: 500 }));
  await expect(worker.load()).rejects.toThrow('500');
  vi.stubGlobal('fetch', answered);
});

test('what is seen on arranging: a page of rows, their ids, their sums, and the neighbours of a name', async () => {
  const { total, rows } = worker.arrange({ ...EVERY_NAME, sort: 'name' }, TODAY, 1, 3);
  expect(total).toBe(6);
  expect(rows.map(({ name }) => name.ascii)).toEqual(['dateless.com', 'deleted.com']);
  expect(worker.ids(0, 6)).toEqual(NAMES.map(({ id }) => id));
  expect(worker.rows(5, 9).map(({ name }) => name.ascii)).toEqual(['unsure.com']);
  expect(worker.name('deleted.com', TODAY)).toMatchObject({
    place: 2,
    total: 6,
    before: 'dateless.com',
    after: 'lapsing.com',
    row: { phase: 'redemption', policy: GENERIC },
  });
  expect(worker.name('nobody.com', TODAY)).toBeNull();
  expect(await worker.arrangedTotals(TODAY)).toMatchObject({ names: 6 });
  // Sums that another arrangement overtakes, and those of a day that is not shown any more, are nobody's.
  const overtaken = worker.arrangedTotals(TODAY);
  worker.arrange({ ...EVERY_NAME, dateless: true }, TODAY, 0, 9);
  expect(await overtaken).toBeNull();
  expect(await worker.arrangedTotals(addDays(TODAY, 1))).toBeNull();
  expect(await worker.arrangedTotals(TODAY)).toMatchObject({ names: 1 });
  expect(worker.totals([NAMES[3]?.id ?? 0, 999_999], TODAY).names).toBe(1);
});

test('a dateless name is found by its filter and counted among what is not known', async () => {
  const found = worker.arrange({ ...EVERY_NAME, dateless: true }, TODAY, 0, 9);
  expect(found.rows.map(({ name }) => name.ascii)).toEqual(['dateless.com']);
  const { unknowns } = await worker.load();
  expect(unknowns).toMatchObject({ ends: 1, settings: 1, names: 6 });
  const { lists } = worker.today(10);
  const of = (wanted: string) =>
    lists.find(({ consequence }) => consequence === wanted)?.rows.map(({ name }) => name.ascii);
  expect(of('lost')).toEqual(['deleted.com']);
  expect(of('dearer')).toEqual(['lapsing.com', 'unsure.com']);
  expect(of('stops working')).toEqual(['mail.com']);
});

test('a list on Today shows so many and says how many there are', () => {
  const dearer = worker.today(1).lists.find(({ consequence }) => consequence === 'dearer');
  expect(dearer).toMatchObject({ total: 2 });
  expect(dearer?.rows).toHaveLength(1);
});

test('a day of charges names the first of its names, and what it comes to', () => {
  const { charges } = worker.today(10);
  for (const day of charges) {
    expect(day.names.length).toBeLessThanOrEqual(6);
    expect(day.count).toBeGreaterThanOrEqual(day.names.length);
    expect(day.accountIds.length).toBeGreaterThan(0);
  }
});

test('the life of a name that was deleted in mid-term has no more term', () => {
  const strip = worker.name('deleted.com', TODAY)?.row.strip;
  const kinds = strip?.stretches.map(({ kind }) => kind);
  expect(kinds).toEqual(['term', 'redemption', 'pending delete']);
  expect(strip?.stretches[0]?.to).toBe(addDays(TODAY, -3));
  expect(strip?.stretches[1]?.to).toBe(addDays(TODAY, 27));
});

test('moving the date shows names as they will be, and leaves today as it is', () => {
  const later = addDays(TODAY, 60);
  const { rows } = worker.arrange({ ...EVERY_NAME, sort: 'name' }, later, 0, 9);
  expect(rows.map(({ name, phase }) => [name.ascii, phase])).toEqual([
    ['calm.com', 'term'],
    ['dateless.com', null],
    ['deleted.com', 'available'],
    ['lapsing.com', 'redemption'],
    ['mail.com', 'term'],
    ['unsure.com', 'late'],
  ]);
  expect(worker.rowsOf([NAMES[3]?.id ?? 0], TODAY)[0]?.phase).toBe('term');
});

test('Rescue: what is in danger with a verdict, and the best set under a budget of its currency', async () => {
  const { rows, pendingDelete, dropping } = await worker.rescue();
  expect(rows.map(({ row }) => row.name.ascii).sort()).toEqual(['deleted.com', 'lapsing.com', 'unsure.com']);
  expect(pendingDelete).toEqual([]);
  expect(dropping).toEqual([]);
  expect(await worker.bestSet('USD', 1138)).toEqual([NAMES[3]?.id]);
  expect(await worker.bestSet('USD', 0)).toEqual([]);
  expect(await worker.bestSet('EUR', 1_000_000)).toEqual([]);
});

test('funding: what is not known is counted, what-if changes nothing', async () => {
  const until = addDays(TODAY, 400);
  const [known] = worker.funding(until);
  expect(known).toMatchObject({ chargeCount: 2, notKnown: 0, firstFailure: null });
  const poor = { ...QUAYMARK, balanceMinor: 1138 };
  answers = { ...answers, rules: rulesWith({ accounts: [poor] }), revision: revision + 2000 };
  await worker.load();
  expect(worker.funding(until)[0]?.firstFailure?.cause).toMatchObject({ kind: 'balance short' });
  const helped = worker.whatIf({ accountId: 1, topUpMinor: 1138, card: null }, until);
  expect(helped?.firstFailure).toBeNull();
  expect(worker.funding(until)[0]?.firstFailure).not.toBeNull();
  expect(worker.whatIf({ accountId: 99, topUpMinor: 1, card: null }, until)).toBeNull();
  const nobodyKnows = { ...QUAYMARK, balanceMinor: null };
  answers = { ...answers, rules: rulesWith({ accounts: [nobodyKnows] }), revision: revision + 3000 };
  await worker.load();
  expect(worker.funding(until)[0]).toMatchObject({ notKnown: 2, firstFailure: null });
});

test('what was asked for and not confirmed, and what is found by a part of a name', () => {
  expect(worker.requested(TODAY as Instant).map(({ name }) => name.ascii)).toEqual(['unsure.com']);
  expect(worker.find('AL', 5).map(({ ascii }) => ascii)).toEqual(['calm.com']);
  expect(worker.find('m', 2)).toHaveLength(2);
  expect(worker.find('m', 1)[0]?.ascii).toBe('mail.com');
  expect(worker.everyName()).toHaveLength(6);
});
