import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { homedir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { seedDemo } from '../../practice/scenario/seed';
import { migrate } from '../../src/database/migrate';
import { hasNames } from '../../src/database/names';
import { openDatabase } from '../../src/database/pool';
import { clockFrom } from '../../src/usecases/deps';
import { prepareLedger } from '../../src/usecases/prepare';
import { build, endLeftOver, serve } from './app';
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

function alreadyRunning(): number | null {
  if (!existsSync(lock)) return null;
  const pid = Number(readFileSync(lock, 'utf8'));
  const command = existsSync(`/proc/${pid}/cmdline`) ? readFileSync(`/proc/${pid}/cmdline`, 'utf8') : '';
  return command.includes('support/start.ts') ? pid : null;
}

async function start(): Promise<void> {
  const port = Number(options.port);
  if (!Number.isInteger(port) || port < 1 || port > 65_535) throw new Error('Give --port a number from 1 to 65535.');
  mkdirSync(home, { recursive: true, mode: 0o755 });
  const other = alreadyRunning();
  if (other !== null)
    throw new Error(`Name Ledger is running already (process ${other}). End it with Ctrl-C where it was started.`);
  await endLeftOver(appPid);
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
    if (options.fresh) rmSync(join(home, 'postgres'), { recursive: true, force: true });
    let server: PostgresServer | null = null;
    if (!own) {
      server = await startPostgres(join(home, 'postgres'), true);
      stops.push(server.stop);
    }
    const databaseUrl = own ?? server?.url ?? '';
    await migrate(databaseUrl);
    const clock = clockFrom(options.today ?? process.env.NAME_LEDGER_TODAY);
    const database = openDatabase(databaseUrl, (error) => console.error(error.message));
    await prepareLedger(database);
    if (!options.empty && !own && !(await hasNames(database))) {
      console.log('Making the demo ledger');
      await seedDemo(database, clock());
    }
    await database.end();
    build();
    const fixed = options.today ?? process.env.NAME_LEDGER_TODAY;
    const app = await serve(
      port,
      { DATABASE_URL: databaseUrl, ...(fixed ? { NAME_LEDGER_TODAY: fixed } : {}) },
      'ignore',
    );
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
