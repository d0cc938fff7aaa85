import 'reflect-metadata';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { seedDemo } from '../../practice/scenario/seed';
import { clockFrom } from '../../src/usecases/deps';
import { type LedgerName, wishFrom } from '../../src/usecases/ledgers/choice';
import { serveAt } from '../../src/usecases/reminders/settings';
import { sealedWithOtherKey } from '../../src/usecases/secrets/keys';
import { build, buildForWork, endLeftOver, isDev, serve } from './app';
import { jobsBeat, type PracticeAt, postgresAnswers, practiceAnswers, startProgram } from './companions';
import { demoDeps, linkPractice } from './demo';
import { alreadyRunning, home, paths } from './home';
import {
  databaseBeside,
  demoUrl,
  dropDemo,
  hasDemo,
  ledgerOpenLast,
  migrated,
  moveEarlierDemo,
  noteDemoMade,
  noteOpenLedger,
} from './ledgers';
import { openLog, type PartLog } from './logs';
import { options } from './options';
import { leadsOutside, outsideOf, refuseUnguarded } from './outside';
import { portsIn, type ShopAsked } from './ports';
import { freePort, type PostgresServer, portTaken, startPostgres, stopServer } from './postgres';
import type { Program } from './programs';
import { settleKey } from './settleKey';
import { shopAnswers, shopEnv, shopSaid } from './shop';
import { type Part, type Supervised, supervise, together } from './supervise';

const stops: (() => Promise<void>)[] = [];
/** The parts that run, by the program that each is: there are jobs for each ledger. */
const parts = new Map<Program, Set<Supervised>>();
let ending = false;

async function end(code: number): Promise<void> {
  if (ending) return;
  ending = true;
  for (let stop = stops.pop(); stop; stop = stops.pop()) await stop();
  process.exit(code);
}

/** Starts whatever runs of a program anew. */
function renew(program: Program): void {
  for (const part of parts.get(program) ?? []) part.renew();
}

function logOf(part: string): PartLog {
  const log = openLog(paths.logs, part, options.log);
  stops.push(() => log.close());
  return log;
}

/** Runs a part from now on, whatever becomes of its process. */
async function keep(part: Part, log: PartLog, program?: Program): Promise<Supervised> {
  const say = (message: string) => {
    if (ending) return;
    console.error(message);
    log.say(40, message);
  };
  const running = await supervise(part, say);
  stops.push(() => running.stop());
  if (program) parts.set(program, (parts.get(program) ?? new Set()).add(running));
  return running;
}

/** The private PostgreSQL, kept running on one port. Answers its address. */
async function keepPostgres(): Promise<string> {
  const log = logOf('postgres');
  let server: PostgresServer | null = null;
  await keep(
    {
      name: 'PostgreSQL',
      start: async () => {
        server = await startPostgres(paths.postgres, { durable: true, ...(server ? { port: server.port } : {}) });
        log.follow(server.child.stderr);
        return server.child;
      },
      isWell: () => postgresAnswers(server?.url ?? ''),
      stop: stopServer,
    },
    log,
  );
  return (server as PostgresServer | null)?.url ?? '';
}

/** The practice world, kept running on its ports. */
async function keepPractice(
  databaseUrl: string,
  now: number,
  shopPort: number | null,
): Promise<{ said: PracticeAt; running: Supervised }> {
  const log = logOf('practice');
  let said: PracticeAt | null = null;
  const running = await keep(
    {
      name: 'The practice world',
      start: async () => {
        const env = {
          PRACTICE_DATABASE_URL: databaseUrl,
          PRACTICE_NOW: new Date(now).toISOString(),
          PRACTICE_SHOP_PORT: String(shopPort ?? 0),
          ...(said ? { PRACTICE_AT: JSON.stringify(said.at) } : {}),
        };
        const { child, line } = await startProgram('practice', env, paths.pid('practice'), log);
        said = JSON.parse(line) as PracticeAt;
        return child;
      },
      isWell: () => practiceAnswers(said?.control ?? 0),
    },
    log,
    'practice',
  );
  return { said: said as unknown as PracticeAt, running };
}

async function start(): Promise<void> {
  const { port, shop } = portsIn(options);
  const outside = outsideOf(options, port);
  if (outside && (options.demo || (options.fresh && !options.empty)))
    throw new Error('The demo is for this machine alone: nobody signs in there. Start it without --listen.');
  const fixed = options.today ?? process.env.NAME_LEDGER_TODAY;
  const clock = clockFrom(fixed);
  mkdirSync(home, { recursive: true, mode: 0o755 });
  const other = alreadyRunning();
  if (other !== null)
    throw new Error(`Name Ledger is running already (process ${other}). End it with Ctrl-C where it was started.`);
  for (const part of ['app', 'jobs', 'jobs-demo', 'practice', 'shop']) await endLeftOver(paths.pid(part), /\.mjs/);
  if (await portTaken(port)) throw new Error(`Port ${port} is taken by another program. Choose another with --port.`);
  writeFileSync(paths.lock, String(process.pid));
  stops.push(async () => rmSync(paths.lock, { force: true }));
  const own = process.env.DATABASE_URL;
  if (own && options.fresh)
    throw new Error('--fresh discards the private demo only. Empty your own PostgreSQL database yourself.');
  if (options.fresh)
    for (const part of [paths.postgres, paths.open, paths.earlierDemo]) rmSync(part, { recursive: true, force: true });
  if (isDev) stops.push(await buildForWork(renew));
  else build();
  const databaseUrl = own ?? (await keepPostgres());
  if (!own) await moveEarlierDemo(databaseUrl);
  const database = await migrated(databaseUrl);
  const demo = own || !(await hasDemo(databaseUrl)) ? null : await migrated(demoUrl(databaseUrl));
  const key = await settleKey(demo ? [database, demo] : [database], options['rotate-key']);
  await demo?.end();
  const closed = await sealedWithOtherKey(await demoDeps(database, clock, key));
  if (closed.length > 0)
    console.error(
      `The key is not the one that sealed the logins of ${closed.map(({ label }) => label).join(', ')}. Their links stand still: put the old key back, or type the logins again under Setup.`,
    );
  const baseUrl = outside?.origin ?? `http://127.0.0.1:${port}`;
  if (outside || leadsOutside(process.env.NAME_LEDGER_ORIGIN)) await refuseUnguarded(database);
  await serveAt(database, outside?.origin ?? process.env.NAME_LEDGER_ORIGIN ?? baseUrl);
  await database.end();
  const house = new House(
    databaseUrl,
    key,
    clock,
    baseUrl,
    {
      NAME_LEDGER_KEY: key,
      NAME_LEDGER_LOGS: paths.logs,
      ...outside?.env,
      // A thread would go on computing with the sources that it was started from.
      ...(isDev ? { NAME_LEDGER_THREAD: '' } : {}),
      ...(fixed ? { NAME_LEDGER_TODAY: fixed } : {}),
    },
    shop?.port ?? null,
  );
  const opened = async () => {
    if (!own && !outside) {
      const wanted = options.demo || (options.fresh && !options.empty) ? 'demo' : ledgerOpenLast();
      if (wanted === 'demo') await house.openDemo();
    }
    // What is watched from this machine has a port of its own there.
    const appPort = outside ? await freePort() : port;
    await together([shop === null ? null : house.keepShop(shop), house.keepApp(appPort, !own && !outside)]);
  };
  await together([house.keepJobs('jobs', databaseUrl, {}), opened()]);
  console.log(`Name Ledger is at ${baseUrl}${outside ? '' : ' (this machine only)'}. Ctrl-C stops it.`);
}

/** The application with the ledger that is open in it. The office's own jobs go on whichever it is; the demo's only while it is open. */
class House {
  private open: LedgerName = 'own';
  /** What runs for the demo alone. */
  private ofDemo: Supervised[] = [];
  private practiceUrl: string | null = null;
  private changing: Promise<void> = Promise.resolve();
  private log: PartLog | null = null;

  constructor(
    private readonly databaseUrl: string,
    private readonly key: string,
    private readonly clock: ReturnType<typeof clockFrom>,
    private readonly baseUrl: string,
    private readonly env: Record<string, string>,
    private readonly shopPort: number | null,
  ) {}

  private get address(): string {
    return this.open === 'demo' ? demoUrl(this.databaseUrl) : this.databaseUrl;
  }

  /** Opens the demo, and makes it first where there is none. */
  async openDemo(): Promise<void> {
    const { url, isNew } = await databaseBeside(this.databaseUrl, 'demo', !(await hasDemo(this.databaseUrl)));
    if (isNew) console.log('Making the demo ledger');
    const database = await migrated(url);
    try {
      const deps = await demoDeps(database, this.clock, this.key);
      if (isNew) await seedDemo(database, this.clock());
      const practice = await databaseBeside(this.databaseUrl, 'practice', isNew);
      const { said, running } = await keepPractice(practice.url, deps.clock(), this.shopPort);
      this.ofDemo.push(running);
      this.practiceUrl = `http://127.0.0.1:${said.control}`;
      await linkPractice(deps, said, isNew, this.baseUrl, this.shopPort);
      await serveAt(database, process.env.NAME_LEDGER_ORIGIN ?? this.baseUrl);
      this.ofDemo.push(await this.keepJobs('jobs-demo', url, { PRACTICE_URL: this.practiceUrl ?? '' }));
      if (isNew) await noteDemoMade(this.databaseUrl);
    } catch (error) {
      // What runs for it already would be started a second time with the next try.
      await this.stopDemo();
      throw error;
    } finally {
      await database.end();
    }
    this.open = 'demo';
    noteOpenLedger('demo');
  }

  /** Leaves the demo as it is. */
  private async leaveDemo(): Promise<void> {
    this.open = 'own';
    noteOpenLedger('own');
    await this.stopDemo();
  }

  /** Ends what runs for the demo alone. */
  private async stopDemo(): Promise<void> {
    this.practiceUrl = null;
    for (const part of this.ofDemo.splice(0).reverse()) {
      for (const running of parts.values()) running.delete(part);
      await part.stop();
    }
  }

  /** What the application asks for: one change after the other, and the application anew with what is open then. */
  private hear(message: unknown): void {
    const wish = wishFrom(message);
    const change = async () => {
      if (wish === 'discard demo') {
        if (this.open === 'demo') await this.leaveDemo();
        await dropDemo(this.databaseUrl);
      } else if (wish === 'open demo' && this.open === 'own') await this.openDemo();
      else if (wish === 'open own' && this.open === 'demo') await this.leaveDemo();
      else return;
      renew('server');
      renew('shop');
    };
    this.changing = this.changing.then(change).catch((error: unknown) => {
      const why = `The ledger could not be changed: ${error instanceof Error ? error.message : 'no reason given'}`;
      console.error(why);
      this.log?.say(50, why);
    });
  }

  async keepJobs(name: string, url: string, more: Record<string, string>): Promise<Supervised> {
    const log = logOf(name);
    const env = { ...this.env, ...more, DATABASE_URL: url };
    return keep(
      {
        name: 'The jobs process',
        start: async () => (await startProgram('jobs', env, paths.pid(name), log)).child,
        isWell: () => jobsBeat(url),
      },
      log,
      'jobs',
    );
  }

  /** What buyers see of the ledger that is open: a process and a pool of its own, so that a rush there holds up nobody here. */
  async keepShop(asked: ShopAsked): Promise<void> {
    const log = logOf('shop');
    await keep(
      {
        name: 'The shop',
        start: async () => {
          const key = this.env.NAME_LEDGER_KEY ?? process.env.NAME_LEDGER_KEY;
          const env = { ...this.env, ...shopEnv(asked, key, this.address) };
          return (await startProgram('shop', env, paths.pid('shop'), log)).child;
        },
        isWell: () => shopAnswers(asked),
      },
      log,
      'shop',
    );
    console.log(shopSaid(asked));
  }

  /** `mayChange`: the ledgers are in a PostgreSQL of our own, where there is room for a demo beside the office’s. */
  async keepApp(port: number, mayChange: boolean): Promise<void> {
    const log = logOf('app');
    this.log = log;
    await keep(
      {
        name: 'The application',
        start: async () => {
          const env = {
            ...this.env,
            DATABASE_URL: this.address,
            ...(mayChange
              ? { NAME_LEDGER_OPEN: this.open, NAME_LEDGER_DEMO: (await hasDemo(this.databaseUrl)) ? 'there' : '' }
              : {}),
            ...(this.practiceUrl ? { PRACTICE_URL: this.practiceUrl } : {}),
          };
          const app = await serve(port, env, log, mayChange ? (message) => this.hear(message) : undefined);
          writeFileSync(paths.pid('app'), String(app.child.pid));
          return app.child;
        },
        // Any answer will do: what is down behind it is told by its own look.
        isWell: async () => {
          await fetch(`http://127.0.0.1:${port}/api/v1/health`, { signal: AbortSignal.timeout(4500) });
          return true;
        },
      },
      log,
      'server',
    );
  }
}

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) {
  process.on(signal, () => {
    console.log('\nStopping');
    void end(0);
  });
}
await start().catch(async (error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  await end(1);
});
