import { afterAll, beforeAll, expect, test } from 'vitest';
import { openQueues } from '@/jobs/queues';
import { emptyLedger, type TestLedger } from './ledger';

let ledger: TestLedger;
beforeAll(async () => {
  ledger = await emptyLedger();
});
afterAll(() => ledger.close());

const NAMES = Array.from({ length: 23 }, (_, i) => `job-${i}`);
const CRONS = Object.fromEntries(NAMES.map((name) => [name, '* * * * *']));

test('six processes that start at the same moment on an empty database open the same queues, and none of them fails', async () => {
  const failed: Error[] = [];
  const all = await Promise.all(
    Array.from({ length: 6 }, () => openQueues(ledger.url, CRONS, (error) => failed.push(error))),
  );
  const [first] = all;
  const queues = (await first?.getQueues())?.map(({ name }) => name).filter((name) => name.startsWith('job-'));
  expect(queues?.sort()).toEqual([...NAMES].sort());
  expect((await first?.getSchedules())?.map(({ name }) => name).sort()).toEqual([...NAMES].sort());
  // What is put in is done once, whoever of them does it.
  const done: string[] = [];
  for (const boss of all)
    await boss.work('job-7', { pollingIntervalSeconds: 0.5 }, async ([job]) => void done.push(job?.id ?? ''));
  await first?.send('job-7', {});
  await expect.poll(() => done.length, { timeout: 10_000 }).toBe(1);
  await Promise.all(all.map((boss) => boss.stop({ timeout: 1000 })));
  expect(done).toHaveLength(1);
  expect(failed).toEqual([]);
});
