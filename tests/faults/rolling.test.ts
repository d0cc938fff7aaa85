import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { seedDemo } from '@practice/scenario/seed';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { formatInstant } from '@/core/time';
import { type RunningApp, serve } from '../../bin/support/app';
import { freePort } from '../../bin/support/postgres';
import { emptyLedger, TEST_KEY, type TestLedger, TODAY } from '../database/ledger';
import { type Balancer, balance } from './balancer';

/** Two applications on one database behind a balancer, each ended and started anew in turn, while others read and write. */
let ledger: TestLedger;
let ports: number[];
let apps: RunningApp[];
let balancer: Balancer;
const start = (port: number) =>
  serve(
    port,
    {
      DATABASE_URL: ledger.url,
      NAME_LEDGER_TODAY: formatInstant(TODAY),
      NAME_LEDGER_KEY: TEST_KEY,
      NAME_LEDGER_DRAIN_SECONDS: '2',
    },
    null,
  );
beforeAll(async () => {
  ledger = await emptyLedger();
  await seedDemo(ledger.database, TODAY);
  ports = [await freePort(), await freePort()];
  apps = await Promise.all(ports.map(start));
  balancer = await balance(ports);
}, 120_000);
afterAll(async () => {
  await balancer.close();
  for (const app of apps) await app.stop();
  await ledger.close();
});

test('while both are restarted one after the other no request is lost, and none is carried out twice', async () => {
  const names = (
    await ledger.database.query<{ ascii: string }>('select ascii from names where gone_at is null order by id limit 6')
  ).rows.map(({ ascii }) => ascii);
  const wrong: string[] = [];
  const written = new Map<string, string>();
  let reads = 0;
  let isOver = false;
  const reader = async () => {
    for (;;) {
      if (isOver) return;
      const answer = await fetch(`${balancer.url}/api/v1/names?limit=20`).catch((error: unknown) => error as Error);
      if (answer instanceof Error || answer.status !== 200)
        wrong.push(answer instanceof Error ? answer.message : `read ${answer.status}`);
      else await answer.text();
      reads += 1;
    }
  };
  const writer = async (name: string) => {
    for (let n = 0; !isOver; n += 1) {
      const notes = `${name} ${n}`;
      const answer = await fetch(`${balancer.url}/api/v1/names/${name}`, {
        method: 'PATCH',
        headers: { 'content-type': 'application/json', 'idempotency-key': randomUUID() },
        body: JSON.stringify({ notes }),
      }).catch((error: unknown) => error as Error);
      if (answer instanceof Error || answer.status !== 200)
        wrong.push(answer instanceof Error ? answer.message : `write ${answer.status}: ${await answer.text()}`);
      else written.set(name, notes);
      await wait(20);
    }
  };
  const work = [reader(), reader(), reader(), ...names.map(writer)];
  const pids = new Set<number | undefined>();
  for (const [i, app] of apps.entries()) {
    pids.add(app.child.pid);
    await wait(500);
    await app.stop();
    apps[i] = await start(ports[i] as number);
    pids.add(apps[i]?.child.pid);
    await wait(500);
  }
  // A slow machine gets its time to be asked often enough.
  while (reads <= 200) await wait(50);
  isOver = true;
  await Promise.all(work);
  expect(wrong).toEqual([]);
  expect(pids.size).toBe(4);
  const { rows } = await ledger.database.query<{ ascii: string; notes: string; batches: number }>(
    `select n.ascii, n.notes, (select count(*)::int from changes c where c.name_id = n.id and c.after ? 'notes') as batches
     from names n where n.ascii = any($1)`,
    [names],
  );
  for (const { ascii, notes, batches } of rows) {
    expect(notes).toBe(written.get(ascii));
    // Each was written once: the history has as many lines as there were answers.
    expect(batches).toBe(Number(notes.split(' ').at(-1)) + 1);
  }
}, 120_000);
