import { execFileSync } from 'node:child_process';
import { createReadStream, createWriteStream, mkdtempSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { seedDemo } from '@practice/scenario/seed';
import { afterAll, expect, inject, test } from 'vitest';
import { formatInstant } from '@/core/time';
import { makeCalendarFeed } from '@/usecases/calendar/feed';
import { importAtOnce } from '@/usecases/imports/importAtOnce';
import { serve } from '../../bin/support/app';
import { freePort } from '../../bin/support/postgres';
import { emptyLedger, type TestLedger, TODAY } from '../database/ledger';
import { databaseAt, runAdmin } from '../database/postgres';
import { listening } from '../security/program';
import { underLoad } from './load';
import { line, portfolioCsv } from './portfolio';

const report: string[] = [];
afterAll(() => console.log(`\n${report.join('\n')}\n`));

async function started(ledger: TestLedger) {
  const { log, lines } = listening();
  const app = await serve(await freePort(), { DATABASE_URL: ledger.url, NAME_LEDGER_TODAY: formatInstant(TODAY) }, log);
  const memoryMb = () =>
    Math.round(Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${app.child.pid}/status`, 'utf8'))?.[1] ?? 0) / 1024);
  return { app, lines, memoryMb };
}

const longestBlock = (lines: readonly Record<string, unknown>[]) =>
  Math.max(0, ...lines.map(({ blockedMs }) => Number(blockedMs ?? 0)));

async function timed(work: () => Promise<unknown>): Promise<number> {
  const since = performance.now();
  await work();
  return performance.now() - since;
}

test('200 readers and 20 writers for a minute at 412 names', async () => {
  const ledger = await emptyLedger();
  await seedDemo(ledger.database, TODAY);
  const { app, memoryMb } = await started(ledger);
  await underLoad(app.url, 20, 2, 5);
  const before = memoryMb();
  const load = await underLoad(app.url, 200, 20, 60);
  const during = memoryMb();
  await new Promise((rest) => setTimeout(rest, 60_000));
  report.push(
    `200 readers, 20 writers, 60 s: ${load.readsASecond} reads/s, median ${load.read[0]} ms, p99 ${load.read[1]} ms; ${load.writesASecond} writes/s, median ${load.write[0]} ms, p99 ${load.write[1]} ms; ${load.failures} failures`,
    `memory before, at the end, a minute later: ${before}, ${during}, ${memoryMb()} MB`,
  );
  expect(load.failures).toBe(0);
  await app.stop();
  await ledger.close();
}, 240_000);

test('50,000 names: the calendar, and a backup out and in beside pg_dump', async () => {
  const ledger = await emptyLedger();
  const list = { account: null, dateOrder: null, fullList: false, allowPrivateEndings: false, dryRun: false };
  await importAtOnce(ledger, { ...list, content: Buffer.from(portfolioCsv(50_000)) });
  const { app, lines, memoryMb } = await started(ledger);
  await fetch(`${app.url}/api/v1/names?limit=1`);
  lines.length = 0;
  const token = await makeCalendarFeed(ledger);
  let size = 0;
  const calendar = await timed(async () => {
    const answer = await fetch(`${app.url}/api/v1/calendar.ics?token=${token}`);
    size = (await answer.arrayBuffer()).byteLength;
  });
  report.push(
    `calendar of 50,000 names: ${(calendar / 1000).toFixed(1)} s, ${(size / 1e6).toFixed(1)} MB; longest block meanwhile ${longestBlock(lines)} ms`,
  );
  const folder = mkdtempSync(join(tmpdir(), 'name-ledger-bench-'));
  const file = join(folder, 'ledger.json');
  const bin = join('/usr/lib/postgresql', readdirSync('/usr/lib/postgresql').sort().at(-1) ?? '', 'bin');
  const dump = join(folder, 'ledger.dump');
  const dumping = await timed(async () => execFileSync(join(bin, 'pg_dump'), ['-Fc', '-Z0', '-f', dump, ledger.url]));
  const rest = memoryMb();
  const saving = await timed(async () => {
    const answer = await fetch(`${app.url}/api/v1/backup`);
    await pipeline(Readable.fromWeb(answer.body as never), createWriteStream(file));
  });
  const saved = memoryMb();
  report.push(line('backup of 50,000 names, over HTTP', saving, 'pg_dump -Fc', dumping));
  const other = await emptyLedger();
  const second = await started(other);
  const quiet = second.memoryMb();
  const restoring = await timed(async () => {
    const answer = await fetch(`${second.app.url}/api/v1/backup`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'content-length': String(statSync(file).size) },
      body: Readable.toWeb(createReadStream(file)) as never,
      duplex: 'half',
    } as RequestInit);
    expect(await answer.json()).toEqual({ names: 50_000 });
  });
  const bare = 'bench_restored';
  await runAdmin(inject('postgresUrl'), `drop database if exists ${bare}`);
  await runAdmin(inject('postgresUrl'), `create database ${bare}`);
  const undumping = await timed(async () =>
    execFileSync(join(bin, 'pg_restore'), ['-d', databaseAt(inject('postgresUrl'), bare), dump]),
  );
  report.push(
    line('restoring it, over HTTP', restoring, 'pg_restore', undumping),
    `file ${(statSync(file).size / 1e6).toFixed(0)} MB; memory saving ${rest} to ${saved} MB, restoring ${quiet} to ${second.memoryMb()} MB; longest block ${longestBlock([...lines, ...second.lines.slice(5)])} ms`,
  );
  await runAdmin(inject('postgresUrl'), `drop database ${bare}`);
  rmSync(folder, { recursive: true, force: true });
  for (const one of [app, second.app]) await one.stop();
  await ledger.close();
  await other.close();
}, 600_000);
