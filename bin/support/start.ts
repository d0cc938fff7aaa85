import 'reflect-metadata';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { homedir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import pino from 'pino';
import { linkDemo, pointMailAt, pointRecordsAt } from '../../practice/scenario/links';
import { seedDemo } from '../../practice/scenario/seed';
import { moveVenue, seedSelling } from '../../practice/scenario/selling';
import { eppLink } from '../../src/connectors/registrar/eppLink';
import { httpVenue } from '../../src/connectors/venue/httpVenue';
import type { Instant } from '../../src/core/time';
import { moveLinks } from '../../src/database/links';
import { migrate } from '../../src/database/migrate';
import { hasNames } from '../../src/database/names';
import { openDatabase } from '../../src/database/pool';
import { loadClock } from '../../src/usecases/clock';
import { clockFrom, type Deps } from '../../src/usecases/deps';
import { keyFrom } from '../../src/usecases/links/secret';
import { prepareLedger } from '../../src/usecases/prepare';
import { build, endLeftOver, serve } from './app';
import { startJobs, startPractice } from './companions';
import { type PostgresServer, portTaken, startPostgres } from './postgres';

const { values: options } = parseArgs({
  options: {
    fresh: { type: 'boolean', default: false },
    empty: { type: 'boolean', default: false },
    port: { type: 'string', default: '4180' },
    today: { type: 'string' },
  },
});

/** Where the program keeps its own database: readable by PostgreSQL's user when started as root. */
const home =
  process.env.NAME_LEDGER_HOME ??
  (process.getuid?.() === 0 ? '/var/lib/name-ledger' : join(homedir(), '.local/share/name-ledger'));
const lock = join(home, 'running.pid');
/** The process that serves pages: an earlier start that was killed leaves it behind. */
const appPid = join(home, 'app.pid');
/** The processes beside it: what happens by itself, and the practice world. */
const companionPids = ['jobs.pid', 'practice.pid'].map((name) => join(home, name));

/** The text that seals passwords: made once for an installation. */
function ownKey(): string {
  const file = join(home, 'key');
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600 });
  return readFileSync(file, 'utf8').trim();
}

function alreadyRunning(): number | null {
  if (!existsSync(lock)) return null;
  const pid = Number(readFileSync(lock, 'utf8'));
  const command = existsSync(`/proc/${pid}/cmdline`) ? readFileSync(`/proc/${pid}/cmdline`, 'utf8') : '';
  return command.includes('support/start.ts') ? pid : null;
}

async function start(): Promise<void> {
  const port = Number(options.port);
  if (!Number.isInteger(port) || port < 1 || port > 65_535) throw new Error('Give --port a number from 1 to 65535.');
  const clock = clockFrom(options.today ?? process.env.NAME_LEDGER_TODAY);
  mkdirSync(home, { recursive: true, mode: 0o755 });
  const other = alreadyRunning();
  if (other !== null)
    throw new Error(`Name Ledger is running already (process ${other}). End it with Ctrl-C where it was started.`);
  await endLeftOver(appPid, /next/);
  for (const file of companionPids) await endLeftOver(file, /main\.ts/);
  if (await portTaken(port)) throw new Error(`Port ${port} is taken by another program. Choose another with --port.`);
  writeFileSync(lock, String(process.pid));
  const stops: (() => Promise<void>)[] = [async () => rmSync(lock, { force: true })];
  const stopAll = async () => {
    for (let stop = stops.pop(); stop; stop = stops.pop()) await stop();
  };
  let ending = false;
  const end = async (code: number) => {
    if (ending) return;
    ending = true;
    await stopAll();
    process.exit(code);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) {
    process.on(signal, () => {
      console.log('\nStopping');
      void end(0);
    });
  }
  try {
    const own = process.env.DATABASE_URL;
    if (own && options.fresh)
      throw new Error('--fresh discards the private demo only. Empty your own PostgreSQL database yourself.');
    if (options.fresh)
      for (const part of ['postgres', 'demo']) rmSync(join(home, part), { recursive: true, force: true });
    let server: PostgresServer | null = null;
    if (!own) {
      server = await startPostgres(join(home, 'postgres'), true);
      stops.push(server.stop);
    }
    const databaseUrl = own ?? server?.url ?? '';
    await migrate(databaseUrl);
    const database = openDatabase(databaseUrl, (error) => console.error(error.message));
    await prepareLedger(database);
    const fixed = options.today ?? process.env.NAME_LEDGER_TODAY;
    const env: Record<string, string> = {
      DATABASE_URL: databaseUrl,
      NAME_LEDGER_KEY: process.env.NAME_LEDGER_KEY ?? ownKey(),
      ...(fixed ? { NAME_LEDGER_TODAY: fixed } : {}),
    };
    const fresh = !options.empty && !own && !(await hasNames(database));
    if (fresh) {
      console.log('Making the demo ledger');
      await seedDemo(database, clock());
      writeFileSync(join(home, 'demo'), '');
    }
    if (!own && existsSync(join(home, 'demo'))) {
      const time = { offsetMs: 0 };
      const deps: Deps = {
        database,
        time,
        clock: () => (clock() + time.offsetMs) as Instant,
        key: keyFrom(env.NAME_LEDGER_KEY),
        log: pino({ level: 'silent' }),
        connect: eppLink,
        venue: httpVenue,
        links: new Map(),
      };
      await loadClock(deps);
      const practice = await startPractice(databaseUrl, deps.clock(), fresh, companionPids[1] as string);
      stops.push(practice.stop);
      env.PRACTICE_URL = practice.url;
      if (fresh) await linkDemo(deps, practice.ports);
      else await moveLinks(database, practice.ports);
      await pointMailAt(database, practice.mailPort, `http://127.0.0.1:${port}`);
      await pointRecordsAt(database, practice.records);
      if (fresh) await seedSelling(deps, practice.venuePort);
      else await moveVenue(database, practice.venuePort);
    }
    await database.end();
    build();
    const jobs = await startJobs(env, companionPids[0] as string);
    stops.push(jobs.stop);
    const app = await serve(port, env, 'ignore');
    writeFileSync(appPid, String(app.child.pid));
    stops.push(app.stop);
    app.child.once('exit', () => void end(1));
    console.log(`Name Ledger is at ${app.url} (this machine only). Ctrl-C stops it.`);
  } catch (error) {
    console.error(error instanceof Error ? error.message : error);
    await end(1);
  }
}

await start().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
