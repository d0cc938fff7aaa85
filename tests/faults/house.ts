import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { seedDemo } from '@practice/scenario/seed';
import { formatInstant } from '@/core/time';
import { migrate } from '@/database/migrate';
import { type Database, openDatabase } from '@/database/pool';
import { serve } from '../../bin/support/app';
import { type PracticeAt, startProgram } from '../../bin/support/companions';
import { demoDeps, linkPractice } from '../../bin/support/demo';
import { databaseBeside } from '../../bin/support/ledgers';
import { freePort, type PostgresServer, startPostgres, stopServer } from '../../bin/support/postgres';
import { type Part, type Patience, supervise } from '../../bin/support/supervise';
import { TEST_KEY, TODAY } from '../database/ledger';
import { listening } from '../security/program';

export const PARTS = ['app', 'jobs', 'practice', 'postgres'] as const;
export type PartName = (typeof PARTS)[number];

/** The same watchfulness as in earnest, in less time. */
const QUICK: Patience = { firstWaitMs: 50, mostWaitMs: 1000, lookEveryMs: 500, looks: 6 };

/** The whole program as `bin/start` runs it, each part a process of its own that is kept running. */
export interface House {
  readonly url: string;
  readonly database: Database;
  readonly log: Record<string, unknown>[];
  /** The process of a part as it runs now. */
  pid(part: PartName): number;
  /** Resolves once every part says that it is well. */
  untilWell(withinMs: number): Promise<void>;
  close(): Promise<void>;
}

export async function startHouse(): Promise<House> {
  const home = mkdtempSync(join(tmpdir(), 'name-ledger-house-'));
  chmodSync(home, 0o755);
  const { log, lines } = listening();
  const pids = new Map<PartName, number>();
  const stops: (() => Promise<void>)[] = [async () => rmSync(home, { recursive: true, force: true })];
  const keep = async (name: PartName, part: Omit<Part, 'name'>) => {
    const start = async () => {
      const child = await part.start();
      pids.set(name, child.pid ?? 0);
      return child;
    };
    const running = await supervise({ ...part, name, start }, () => undefined, QUICK);
    stops.push(() => running.stop());
  };
  let server: PostgresServer | null = null;
  await keep('postgres', {
    start: async () => {
      server = await startPostgres(join(home, 'postgres'), { durable: true, ...(server ? { port: server.port } : {}) });
      return server.child;
    },
    stop: stopServer,
  });
  const databaseUrl = (server as unknown as PostgresServer).url;
  await migrate(databaseUrl);
  const database = openDatabase(databaseUrl, () => undefined, { max: 4 });
  stops.push(() => database.end());
  await seedDemo(database, TODAY);
  const deps = await demoDeps(database, () => TODAY, TEST_KEY);
  const { url: practiceUrl } = await databaseBeside(databaseUrl, 'practice', true);
  let said: PracticeAt | null = null;
  await keep('practice', {
    start: async () => {
      const env = {
        PRACTICE_DATABASE_URL: practiceUrl,
        PRACTICE_NOW: formatInstant(TODAY),
        ...(said ? { PRACTICE_AT: JSON.stringify(said.at) } : {}),
      };
      const { child, line } = await startProgram('practice', env, join(home, 'practice.pid'), log);
      said = JSON.parse(line) as PracticeAt;
      return child;
    },
  });
  const practice = said as unknown as PracticeAt;
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  await linkPractice(deps, practice, true, url);
  const env = {
    DATABASE_URL: databaseUrl,
    NAME_LEDGER_KEY: TEST_KEY,
    NAME_LEDGER_TODAY: formatInstant(TODAY),
    PRACTICE_URL: `http://127.0.0.1:${practice.control}`,
  };
  await keep('jobs', { start: async () => (await startProgram('jobs', env, join(home, 'jobs.pid'), log)).child });
  await keep('app', { start: async () => (await serve(port, env, log)).child });
  return {
    url,
    database,
    log: lines,
    pid: (part) => pids.get(part) ?? 0,
    async untilWell(withinMs) {
      const deadline = Date.now() + withinMs;
      let last = 'no answer';
      while (Date.now() < deadline) {
        const answer = await fetch(`${url}/api/v1/health`, { signal: AbortSignal.timeout(5000) }).catch(() => null);
        last = (await answer?.text().catch(() => null)) ?? 'no answer';
        if ((JSON.parse(last.startsWith('{') ? last : '{}') as { isUp?: boolean }).isUp) return;
        await new Promise((soon) => setTimeout(soon, 200));
      }
      throw new Error(`stuck after ${withinMs / 1000} s: ${last}`);
    },
    async close() {
      for (let stop = stops.pop(); stop; stop = stops.pop()) await stop();
    },
  };
}
