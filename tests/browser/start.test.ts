import { type ChildProcess, spawn } from 'node:child_process';
import { chmodSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import { freePort } from '../../bin/support/postgres';
import { ROOT } from '../../bin/support/programs';
import { openBrowser } from './browser';

const home = mkdtempSync(join(tmpdir(), 'name-ledger-home-'));
// PostgreSQL runs as a user of its own when this runs as root.
chmodSync(home, 0o755);
const started: ChildProcess[] = [];
afterAll(async () => {
  for (const child of started) if (child.exitCode === null && child.signalCode === null) child.kill('SIGINT');
  await Promise.all(
    started.map((child) =>
      child.exitCode === null && child.signalCode === null ? new Promise((done) => child.once('exit', done)) : null,
    ),
  );
  rmSync(home, { recursive: true, force: true });
});

/** Starts the program in a home of its own; resolves with what it said once it is ready or has ended. */
function start(...flags: string[]): Promise<{ child: ChildProcess; said: string }> {
  const { DATABASE_URL: _own, ...env } = process.env;
  const child = spawn(join(ROOT, 'bin', 'start'), flags, {
    env: { ...env, NAME_LEDGER_HOME: home, NODE_ENV: 'production' },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  started.push(child);
  let said = '';
  return new Promise((resolve) => {
    const hear = (text: Buffer) => {
      said += text;
      if (said.includes('Ctrl-C stops it.')) resolve({ child, said });
    };
    child.stdout?.on('data', hear);
    child.stderr?.on('data', hear);
    child.once('exit', () => resolve({ child, said }));
  });
}

const ended = (child: ChildProcess) =>
  new Promise<number | null>((resolve) =>
    child.exitCode === null && child.signalCode === null ? child.once('exit', resolve) : resolve(child.exitCode),
  );
const names = async (port: number) =>
  ((await (await fetch(`http://127.0.0.1:${port}/api/v1/names?limit=1000`)).json()) as { names: unknown[] }).names
    .length;

test('the program starts with its demo, refuses a second start, recovers from being killed, and stops in order', async () => {
  const port = await freePort();
  const first = await start('--demo', '--port', String(port));
  expect(first.said).toContain(`Name Ledger is at http://127.0.0.1:${port} (this machine only).`);
  expect(await names(port)).toBe(412);

  const second = await start('--port', String(await freePort()));
  expect(second.said).toMatch(/running already \(process \d+\)/);
  expect(await ended(second.child)).toBe(1);

  first.child.kill('SIGKILL');
  await ended(first.child);
  // What was open is open again; a new key seals what both ledgers hold.
  const again = await start('--rotate-key', '--port', String(port));
  expect(again.said).toContain(`127.0.0.1:${port}`);
  expect(again.said).toMatch(/Sealed [1-9]\d* secrets? with the new key\./);
  expect(again.said).not.toContain('Neither key opens');
  expect(await names(port)).toBe(412);

  again.child.kill('SIGINT');
  expect(await ended(again.child)).toBe(0);
  await expect(fetch(`http://127.0.0.1:${port}/api/v1/health`)).rejects.toThrow();
  expect(() => readFileSync(join(home, 'postgres/data/postmaster.pid'))).toThrow();

  const empty = await start('--fresh', '--empty', '--port', String(port));
  expect(await names(port)).toBe(0);
  empty.child.kill('SIGINT');
  expect(await ended(empty.child)).toBe(0);
});

test('the first start is empty; the demo is opened beside it, left, come back to, and thrown away, all from the interface', async () => {
  const port = await freePort();
  const { child, said } = await start('--fresh', '--empty', '--port', String(port));
  expect(said).toContain(`127.0.0.1:${port}`);
  const visitor = await openBrowser(`http://127.0.0.1:${port}`);
  try {
    await visitor.go('/');
    await visitor.press('Go on');
    await visitor.press('Open the demo');
    await visitor.driver.wait(async () => (await names(port).catch(() => 0)) === 412, 60_000, 'no demo was opened');
    await visitor.see('would save them.');
    await visitor.press('Leave it');
    await visitor.driver.wait(async () => (await names(port).catch(() => 412)) === 0, 30_000, 'the demo was not left');
    // The office's own ledger has kept what was answered.
    await visitor.see('Which names do you own?');
    await visitor.press('Go back to the demo');
    await visitor.see('would save them.');
    await visitor.go('/setup/backup');
    await visitor.press('Throw the demo away…');
    await visitor.press('Throw it away');
    await visitor.see('Which names do you own?');
    await visitor.see('Open the demo');
    expect(await names(port)).toBe(0);
  } finally {
    await visitor.close();
    child.kill('SIGINT');
  }
  expect(await ended(child)).toBe(0);
});

test('options that make no sense are refused in words', async () => {
  expect((await start('--port', 'harbour')).said).toContain('Give --port a number from 1 to 65535.');
  expect((await start('--today', 'soon')).said).toContain('not an RFC 3339 instant: soon');
});
