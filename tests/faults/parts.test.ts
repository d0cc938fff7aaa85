import { type ChildProcess, spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { parse } from 'yaml';
import { freePort } from '../../bin/support/postgres';
import { ROOT } from '../../bin/support/programs';
import { emptyLedger, TEST_KEY, type TestLedger } from '../database/ledger';

let ledger: TestLedger;
const running: ChildProcess[] = [];
beforeAll(async () => {
  ledger = await emptyLedger();
});
afterAll(async () => {
  await Promise.all(running.map(ended));
  await ledger.close();
});

/** Runs a part as it is run on a machine of its own. */
function run(args: readonly string[], env: Record<string, string> = {}): { child: ChildProcess; said: () => string } {
  let text = '';
  const child = spawn(join(ROOT, 'bin/part'), args, {
    cwd: ROOT,
    env: { ...process.env, DATABASE_URL: ledger.url, NAME_LEDGER_KEY: TEST_KEY, ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (piece: Buffer) => {
      text += piece.toString();
    });
  running.push(child);
  return { child, said: () => text };
}
const ended = (child: ChildProcess) =>
  new Promise<number | null>((done) => {
    if (child.exitCode !== null || child.signalCode !== null) return done(child.exitCode);
    child.once('exit', (code) => done(code));
    child.kill('SIGTERM');
  });
const answers = (url: string) =>
  fetch(url).then(
    ({ status }) => status,
    () => 0,
  );

test('two of the application, the shop and two of the jobs run on one database, and end in order', async () => {
  const [first, second, shop] = [await freePort(), await freePort(), await freePort()];
  const parts = [
    run(['app', '--port', String(first)]),
    run(['app', '--port', String(second)]),
    run(['shop', '--port', String(shop)]),
    run(['jobs']),
    run(['jobs']),
  ];
  await expect
    .poll(() => answers(`http://127.0.0.1:${first}/api/v1/health`), { timeout: 60_000, interval: 300 })
    .toBe(200);
  await expect
    .poll(() => answers(`http://127.0.0.1:${second}/api/v1/health`), { timeout: 60_000, interval: 300 })
    .toBe(200);
  await expect.poll(() => answers(`http://127.0.0.1:${shop}/robots.txt`), { timeout: 60_000 }).toBe(200);
  await expect
    .poll(() => parts.slice(3).map(({ said }) => said()), { timeout: 60_000 })
    .toEqual([expect.stringContaining('jobs ready'), expect.stringContaining('jobs ready')]);
  await wait(500);
  // What one of them changes the other shows at once.
  const edited = await fetch(`http://127.0.0.1:${first}/api/v1/office`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ homeCurrency: 'SEK' }),
  });
  expect(edited.status).toBe(200);
  const seen = (await (await fetch(`http://127.0.0.1:${second}/api/v1/office`)).json()) as { homeCurrency: string };
  expect(seen.homeCurrency).toBe('SEK');
  for (const { child, said } of parts) expect(await ended(child), said()).toBe(0);
}, 150_000);

describe('what makes no sense is refused in words', () => {
  test.each([
    [['app'], { DATABASE_URL: '' }, 'Set DATABASE_URL: the database that all parts share.'],
    [['jobs'], { NAME_LEDGER_KEY: '' }, 'Set NAME_LEDGER_KEY'],
    [['kitchen'], {}, 'Say which part: bin/part app | shop | jobs | build.'],
    [['app', '--port', 'ninety'], {}, 'Give --port a number from 1 to 65535.'],
    [['shop', '--shop-listen', 'everywhere'], {}, 'Give --shop-listen an address of this machine'],
    [
      ['app', '--listen', '0.0.0.0', '--host', 'names.harbour.test', '--proxy', '192.0.2.1'],
      {},
      'Nobody needs to sign in yet',
    ],
  ] as const)(
    'bin/part %s',
    async (args, env, why) => {
      const { child, said } = run(args, env);
      const code = await new Promise((done) => child.once('exit', done));
      expect(code).toBe(1);
      expect(said()).toContain(why);
    },
    60_000,
  );
});

describe('the files for machines of one’s own', () => {
  const read = (file: string) => readFileSync(`${ROOT}/deploy/${file}`, 'utf8');
  const PARTS = ['app', 'shop', 'jobs', 'build'];

  test('containers run parts that there are, more than one of each, and are given time to end', () => {
    const { services } = parse(read('compose.yaml'), { merge: true }) as {
      services: Record<
        string,
        {
          command: string[];
          deploy?: { replicas: number };
          stop_grace_period?: string;
          environment: Record<string, string>;
        }
      >;
    };
    for (const part of ['app', 'jobs', 'shop']) {
      const service = services[part];
      expect(PARTS).toContain(service?.command[0]);
      expect(service?.deploy?.replicas).toBeGreaterThan(1);
      const grace = Number(service?.stop_grace_period?.replace('s', ''));
      expect(grace).toBeGreaterThan(Number(service?.environment.NAME_LEDGER_DRAIN_SECONDS) + 10);
    }
  });

  test('whatever they are told by is read somewhere', () => {
    const sources = [
      '../src/server/serve.ts',
      '../src/usecases/deps.ts',
      '../src/shop/serve.ts',
      '../bin/support/part.ts',
    ]
      .map(read)
      .join('\n');
    const names = [
      ...`${read('name-ledger.env')}\n${read('compose.yaml')}`.matchAll(/^\s*#?([A-Z][A-Z_]+)[=:] ?/gm),
    ].map(([, name]) => name ?? '');
    const own = names.filter(
      (name) => !name.startsWith('POSTGRES_') && name !== 'NAME_LEDGER_OPTIONS' && name !== 'DATABASE_PASSWORD',
    );
    expect(own.length).toBeGreaterThan(4);
    for (const name of own) expect(sources, name).toContain(name);
    expect(read('name-ledger@.service')).toContain('bin/part %i $NAME_LEDGER_OPTIONS');
  });
});
