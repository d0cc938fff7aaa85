import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { afterEach, expect, test } from 'vitest';
import { openLog } from '../../../bin/support/logs';
import { readTroubles } from './readLogs';

const folder = mkdtempSync(join(tmpdir(), 'name-ledger-logs-'));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

test('what the parts said is kept by the start command, and its troubles are found again, newest first', async () => {
  const log = openLog(folder, 'app', false);
  const line = (level: number, time: number, msg: string) =>
    JSON.stringify({ level, time, part: 'app', msg, requestId: 'r-1', err: { message: 'why' } });
  // Lines come in whatever pieces the pipe makes of them, and a crash says what is no JSON at all.
  const said = `${line(30, 1, 'all is well')}\n${line(40, 2, 'a warning')}\n${line(50, 3, 'an error')}\n`;
  const pieces = Readable.from([said.slice(0, 17), said.slice(17, 90), said.slice(90)]);
  log.follow(pieces);
  await new Promise((ended) => pieces.once('end', ended));
  const crash = Readable.from(['TypeError: x is not a function\n    at main.mjs:1:1\n']);
  log.follow(crash, 50);
  await new Promise((ended) => crash.once('end', ended));
  await log.close();
  writeFileSync(
    join(folder, 'jobs.log'),
    `ts":1}\n${'x'.repeat(300_000)}\n${line(50, 9, 'of the jobs')}\n{"level":"50"}\nnull\n`,
  );
  const troubles = await readTroubles(folder, 10);
  expect(troubles.map(({ what }) => what)).toEqual([
    'TypeError: x is not a function\n    at main.mjs:1:1',
    'of the jobs',
    'an error',
    'a warning',
  ]);
  expect(troubles[2]).toEqual({ at: 3, part: 'app', isError: true, what: 'an error', cause: 'why', requestId: 'r-1' });
  expect(await readTroubles(folder, 1)).toHaveLength(1);
  expect(await readTroubles(join(folder, 'nowhere'), 10)).toEqual([]);
});
