import { execFileSync } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { formatInstant } from '@/core/time';
import { migrate } from '@/database/migrate';
import { openDatabase } from '@/database/pool';
import { type RunningApp, serve } from '../../bin/support/app';
import { freePort, type PostgresServer, startPostgres, stopServer } from '../../bin/support/postgres';
import { type Supervised, supervise } from '../../bin/support/supervise';
import { TEST_KEY, TODAY } from '../database/ledger';
import { ask, listening } from '../security/program';

/** A small disk of its own for PostgreSQL; without the right to make one there is nothing to fill. */
function smallDisk(): string | null {
  const folder = mkdtempSync(join(tmpdir(), 'name-ledger-disk-'));
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=190m', 'tmpfs', folder], { stdio: 'ignore' });
    chmodSync(folder, 0o755);
    return folder;
  } catch {
    rmSync(folder, { recursive: true });
    return null;
  }
}

const disk = smallDisk();
let server: PostgresServer | null = null;
let kept: Supervised | null = null;
let app: RunningApp | null = null;
const { log, lines } = listening();

beforeAll(async () => {
  if (!disk) return;
  mkdirSync(join(disk, 'postgres'));
  const part = {
    name: 'postgres',
    start: async () => {
      server = await startPostgres(join(disk, 'postgres'), { durable: true, ...(server ? { port: server.port } : {}) });
      return server.child;
    },
    stop: stopServer,
  };
  kept = await supervise(part, () => undefined, { firstWaitMs: 100, mostWaitMs: 1000, lookEveryMs: 500, looks: 6 });
  const url = (server as PostgresServer | null)?.url ?? '';
  await migrate(url);
  app = await serve(
    await freePort(),
    { DATABASE_URL: url, NAME_LEDGER_TODAY: formatInstant(TODAY), NAME_LEDGER_KEY: TEST_KEY },
    log,
  );
}, 120_000);
afterAll(async () => {
  await app?.stop();
  await kept?.stop();
  if (disk) {
    execFileSync('umount', ['-l', disk]);
    rmSync(disk, { recursive: true, force: true });
  }
}, 60_000);

test.skipIf(disk === null)(
  'a full disk: a list is in it whole or not at all, and it goes on when there is room',
  async () => {
    const port = Number(new URL(app?.url ?? '').port);
    const bring = (from: number) =>
      ask(port, '/api/v1/names/import?account=Bollard', {
        method: 'POST',
        headers: { 'content-type': 'text/csv' },
        body: `name,expires,notes\n${Array.from({ length: 4000 }, (_, i) => `quayfull${from + i}.com,2027-05-13,${'n'.repeat(600)}`).join('\n')}`,
      }).catch(() => null);
    expect((await bring(0))?.status).toBe(200);
    const ballast = join(disk ?? '', 'ballast');
    // What is left of the disk is taken by somebody else.
    try {
      for (let i = 0; i < 400; i += 1) writeFileSync(ballast, Buffer.alloc(2 ** 20), { flag: 'a' });
    } catch (error) {
      expect((error as NodeJS.ErrnoException).code).toBe('ENOSPC');
    }
    let taken = 1;
    let refused = 0;
    for (let i = 1; i <= 6 && refused === 0; i += 1) {
      const answer = await bring(i * 10_000);
      if (answer?.status === 200) taken += 1;
      else {
        refused += 1;
        expect(answer === null || answer.status >= 500).toBe(true);
      }
    }
    expect(refused).toBe(1);
    rmSync(ballast);
    await expect
      .poll(async () => (await ask(port, '/api/v1/health').catch(() => null))?.status, {
        timeout: 60_000,
        interval: 500,
      })
      .toBe(200);
    await expect.poll(async () => (await bring(90_000))?.status, { timeout: 60_000, interval: 1000 }).toBe(200);
    const database = openDatabase((server as PostgresServer | null)?.url ?? '', () => undefined);
    const { rows } = await database.query('select count(*) as n from names');
    expect(rows).toEqual([{ n: (taken + 1) * 4000 }]);
    await database.end();
    expect(lines.some(({ level }) => Number(level) >= 40)).toBe(true);
  },
  180_000,
);
