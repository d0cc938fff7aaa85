import { type ChildProcess, spawn } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { end, ROOT } from './app';

/** A process that runs beside the application. */
export interface Companion {
  stop(): Promise<void>;
}

export interface PracticeCompanion extends Companion {
  readonly url: string;
  /** Port of its mail server. */
  readonly mailPort: number;
  readonly records: { readonly rdap: number; readonly whois: number; readonly dns: number };
  /** Port of its venue. */
  readonly venuePort: number;
  /** Ports of the practice registrars, by login. */
  readonly ports: Readonly<Record<string, number>>;
}

/** Starts a TypeScript program of this project; resolves with its first line once it has said one. */
function startProgram(
  path: string,
  env: Record<string, string>,
  pidFile: string,
): Promise<{ child: ChildProcess; line: string }> {
  const child = spawn(process.execPath, ['--import', 'tsx', join(ROOT, path)], {
    cwd: ROOT,
    env: { ...process.env, NODE_ENV: 'production', ...env },
    stdio: ['ignore', 'pipe', 'inherit'],
    detached: true,
  });
  writeFileSync(pidFile, String(child.pid));
  return new Promise((resolve, reject) => {
    let said = '';
    child.stdout?.setEncoding('utf8').on('data', (text: string) => {
      said += text;
      const line = said.split('\n')[0];
      if (said.includes('\n') && line !== undefined) resolve({ child, line });
    });
    child.once('exit', (code) => reject(new Error(`${path} ended (${code}) before it was ready.`)));
  });
}

/** Starts what happens by itself: polling, runs that go on, reminders. */
export async function startJobs(env: Record<string, string>, pidFile: string): Promise<Companion> {
  const { child } = await startProgram('src/jobs/main.ts', env, pidFile);
  return { stop: () => end(child) };
}

/** Starts the practice world on a database of its own beside the ledger's; `fresh` makes it anew. */
export async function startPractice(
  databaseUrl: string,
  now: number,
  fresh: boolean,
  pidFile: string,
): Promise<PracticeCompanion> {
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    if (fresh) await client.query('drop database if exists practice with (force)');
    const { rows } = await client.query("select 1 from pg_database where datname = 'practice'");
    if (rows.length === 0) await client.query('create database practice');
  } finally {
    await client.end();
  }
  const url = new URL(databaseUrl);
  url.pathname = '/practice';
  const env = { PRACTICE_DATABASE_URL: url.toString(), PRACTICE_NOW: new Date(now).toISOString() };
  const { child, line } = await startProgram('practice/main.ts', env, pidFile);
  const { control, mail, records, venue, logins } = JSON.parse(line) as {
    control: number;
    mail: number;
    records: PracticeCompanion['records'];
    venue: number;
    logins: Record<string, number>;
  };
  return {
    url: `http://127.0.0.1:${control}`,
    mailPort: mail,
    records,
    venuePort: venue,
    ports: logins,
    stop: () => end(child),
  };
}
