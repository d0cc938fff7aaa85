import { readFileSync } from 'node:fs';
import { setTimeout as wait } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { Health } from '@/usecases/health/health';
import { chanceFrom } from '../../practice/scenario/chance';
import { type House, PARTS, startHouse } from './house';

/** A few here; `npm run soak` runs all: 100 schedules of ten kills. */
const SCHEDULES = process.env.SOAK ? 100 : 1;
const KILLS = process.env.SOAK ? 10 : 8;

let house: House;
beforeAll(async () => {
  house = await startHouse();
}, 120_000);
afterAll(() => house.close(), 60_000);

const ask = (method: string, path: string, body: string, headers: Record<string, string>) =>
  fetch(`${house.url}${path}`, { method, body, headers, signal: AbortSignal.timeout(20_000) });

/** What was attempted and what was acknowledged, to be found again in the books. */
interface Journal {
  /** Notes of each name, in the order in which they were sent; the last acknowledged one by its place. */
  readonly notes: Map<string, { readonly sent: string[]; acknowledged: number }>;
  readonly renewed: { readonly key: string; readonly name: string }[];
  readonly imported: string[];
}

/** Sends until somebody acknowledges it, as a careful program does. */
async function untilAcknowledged(send: () => Promise<Response>): Promise<void> {
  for (let tries = 0; tries < 200; tries += 1) {
    const answer = await send().catch(() => null);
    if (answer && answer.status < 300) return;
    if (answer && answer.status < 500) throw new Error(`refused: ${await answer.text()}`);
    await wait(200);
  }
  throw new Error('never acknowledged');
}

/** How long a request whose end is not known is left alone before anyone looks whether it was done. */
const SETTLED_MS = 3000;

/** Whether anything is booked under a reference; asked again while the database is away. */
async function isBooked(reference: string): Promise<boolean> {
  for (let tries = 0; tries < 200; tries += 1) {
    const found = await house.database
      .query('select 1 from entries where reference = $1', [reference])
      .catch(() => null);
    if (found) return (found.rowCount ?? 0) > 0;
    await wait(200);
  }
  throw new Error('the database never came back');
}

/** A renewal by a key of its own. Where its end is not known one looks whether it is booked, and only then sends it with a new key. */
async function renewOnce(reference: string, body: object): Promise<void> {
  for (let nth = 0; nth < 20; nth += 1) {
    let isUnknown = false;
    await untilAcknowledged(async () => {
      const answer = await ask('POST', '/api/v1/renewals', JSON.stringify(body), {
        'content-type': 'application/json',
        'idempotency-key': `${reference} ${nth}`,
      });
      isUnknown = answer.status === 409;
      return isUnknown ? new Response(null, { status: 200 }) : answer;
    });
    if (!isUnknown) return;
    await wait(SETTLED_MS);
    if (await isBooked(reference)) return;
  }
  throw new Error(`${reference} was never carried out`);
}

/** Seeded commands, one after the other, until `isOver`. */
async function command(seed: number, names: readonly string[], journal: Journal, isOver: () => boolean): Promise<void> {
  const chance = chanceFrom(seed);
  for (let n = 0; !isOver(); n += 1) {
    const name = chance.pick(names as string[]);
    const act = chance.whole(10);
    if (act < 7) {
      const known = journal.notes.get(name) ?? { sent: [], acknowledged: -1 };
      journal.notes.set(name, known);
      const notes = `note ${seed} ${n}`;
      known.sent.push(notes);
      const place = known.sent.length - 1;
      const answer = await ask('PATCH', `/api/v1/names/${name}`, JSON.stringify({ notes }), {
        'content-type': 'application/json',
      }).catch(() => null);
      if (answer?.ok) known.acknowledged = place;
    } else if (act < 8) {
      const made = `kill${seed}n${n}.com`;
      await untilAcknowledged(() =>
        ask('POST', '/api/v1/names/import?account=Bollard', `${made},2027-05-13`, { 'content-type': 'text/csv' }),
      );
      journal.imported.push(made);
    } else {
      const key = `key ${seed} ${n}`;
      const made = `renew${seed}n${n}.com`;
      await untilAcknowledged(() =>
        ask('POST', '/api/v1/names/import?account=Bollard', `${made},2027-05-13`, { 'content-type': 'text/csv' }),
      );
      journal.imported.push(made);
      const body = {
        items: [{ name: made, years: 1, charged: { amount: '11.00', currency: 'USD' } }],
        reference: key,
      };
      await renewOnce(key, body);
      journal.renewed.push({ key, name: made });
    }
  }
}

/** Nothing lost, nothing doubled, nothing stuck. */
async function checkBooks({ notes, renewed, imported }: Journal): Promise<void> {
  const { rows } = await house.database.query<{ ascii: string; notes: string }>(
    'select ascii, notes from names where ascii = any($1)',
    [[...notes.keys()]],
  );
  for (const row of rows) {
    const { sent, acknowledged } = notes.get(row.ascii) ?? { sent: [], acknowledged: -1 };
    const place = sent.indexOf(row.notes);
    expect([row.ascii, place >= acknowledged]).toEqual([row.ascii, true]);
  }
  const kept = await house.database.query<{ ascii: string; n: number }>(
    'select ascii, count(*) as n from names where ascii = any($1) group by ascii having count(*) <> 1',
    [imported],
  );
  expect(kept.rows).toEqual([]);
  expect((await house.database.query('select 1 from names where ascii = any($1)', [imported])).rowCount).toBe(
    imported.length,
  );
  const booked = await house.database.query<{ reference: string; n: number }>(
    "select reference, count(*) as n from entries where reference = any($1) and kind = 'renewal' group by reference",
    [renewed.map(({ key }) => key)],
  );
  expect(booked.rows.filter(({ n }) => n !== 1)).toEqual([]);
  expect(booked.rows).toHaveLength(renewed.length);
  // No transaction and no lock is left of anyone who was killed.
  await expect
    .poll(
      async () =>
        (
          await house.database.query(
            "select 1 from pg_stat_activity where state = 'idle in transaction' and state_change < now() - interval '5 seconds'",
          )
        ).rowCount,
      { timeout: 20_000 },
    )
    .toBe(0);
  // A list whose reading was cut off is ended by the jobs, to be read again.
  const half = await house.database.query(
    "select 1 from imports where status in ('reading', 'writing') and moved_at < now() - interval '5 minutes'",
  );
  expect(half.rowCount).toBe(0);
}

describe.each(Array.from({ length: SCHEDULES }, (_, seed) => 1000 + seed))('schedule %i', (seed) => {
  test(`${KILLS} kills in turn while commands run: nothing lost, doubled or stuck`, async () => {
    await house.untilWell(60_000);
    const chance = chanceFrom(seed);
    const { rows } = await house.database.query<{ ascii: string }>(
      'select ascii from names where gone_at is null order by ascii limit 40',
    );
    const journal: Journal = { notes: new Map(), renewed: [], imported: [] };
    let isOver = false;
    // Each hand has names of its own, so that the order of what it sends is known.
    const hands = [0, 1].map((hand) =>
      command(
        seed * 10 + hand,
        rows.filter((_, i) => i % 2 === hand).map(({ ascii }) => ascii),
        journal,
        () => isOver,
      ),
    );
    for (let kill = 0; kill < KILLS; kill += 1) {
      await wait(200 + chance.whole(1500));
      const part = PARTS[(seed + kill) % PARTS.length] as (typeof PARTS)[number];
      try {
        process.kill(house.pid(part), 'SIGKILL');
      } catch {
        // It is between two lives already.
      }
    }
    isOver = true;
    await Promise.all(hands);
    await house.untilWell(60_000);
    expect(journal.imported.length + journal.notes.size).toBeGreaterThan(3);
    await checkBooks(journal);
  }, 300_000);
});

test('PostgreSQL that is halted: told within seconds, and what was asked meanwhile is answered once it is back', async () => {
  await house.untilWell(60_000);
  const children = () =>
    readFileSync(`/proc/${house.pid('postgres')}/task/${house.pid('postgres')}/children`, 'utf8')
      .split(' ')
      .filter(Boolean)
      .map(Number);
  const all = [house.pid('postgres'), ...children()];
  for (const pid of all) process.kill(pid, 'SIGSTOP');
  const since = Date.now();
  const health = await fetch(`${house.url}/api/v1/health`);
  expect(Date.now() - since).toBeLessThan(5000);
  const told = (await health.json()) as Health;
  expect([health.status, told.isUp]).toEqual([503, false]);
  // How the jobs are cannot be known then, and is not said.
  expect(told.parts.map(({ name, isUp }) => [name, isUp])).toEqual([
    ['database', false],
    ['jobs', null],
    ['practice', true],
  ]);
  const page = fetch(`${house.url}/api/v1/names?limit=1`);
  await wait(1000);
  for (const pid of all) process.kill(pid, 'SIGCONT');
  expect((await page).status).toBe(200);
  await house.untilWell(60_000);
}, 120_000);
