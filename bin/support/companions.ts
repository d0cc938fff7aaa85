import { type ChildProcess, spawn } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import pg from 'pg';
import type { PracticePorts } from '../../practice/run';
import { end, isDev } from './app';
import type { PartLog } from './logs';
import { type Program, programPath, ROOT } from './programs';

/** Starts a program of this project; resolves once it has said its first line, with that line. */
export function startProgram(
  program: Program,
  env: Record<string, string>,
  pidFile: string,
  log: PartLog,
): Promise<{ child: ChildProcess; line: string }> {
  const child = spawn(process.execPath, [programPath(program)], {
    cwd: ROOT,
    env: { ...process.env, NODE_ENV: isDev ? 'development' : 'production', NEXT_TELEMETRY_DISABLED: '1', ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
    detached: true,
  });
  writeFileSync(pidFile, String(child.pid));
  log.follow(child.stderr, 50);
  log.follow(child.stdout);
  return firstLine(child, program, READY_MS).then((line) => ({ child, line }));
}

const READY_MS = 60_000;

/** The first line that a process says; one that says none in time is ended. Once it has spoken it is left alone. */
export function firstLine(child: ChildProcess, name: string, withinMs: number): Promise<string> {
  return new Promise((resolve, reject) => {
    let said = '';
    const late = setTimeout(() => {
      reject(new Error(`${name} was not ready after ${withinMs / 1000} s. Its log has the cause.`));
      void end(child);
    }, withinMs).unref();
    const hear = (text: string | Buffer) => {
      said += String(text);
      const line = said.split('\n')[0];
      if (!said.includes('\n') || line === undefined) return;
      clearTimeout(late);
      child.stdout?.off('data', hear);
      resolve(line);
    };
    child.stdout?.on('data', hear);
    child.once('exit', (code, signal) => {
      clearTimeout(late);
      reject(new Error(`${name} ended (${signal ?? code}) before it was ready. Its log has the cause.`));
    });
  });
}

/** What a practice world says of itself when it is ready. */
export interface PracticeAt {
  readonly control: number;
  /** Port of its mail server. */
  readonly mail: number;
  /** Port of the mailbox of the office. */
  readonly mailbox: number;
  readonly records: { readonly rdap: number; readonly whois: number; readonly dns: number };
  /** Port of its marketplace. */
  readonly marketplace: number;
  /** Port of its central bank. */
  readonly rates: number;
  /** Port of its certificate authority. */
  readonly acme: number;
  /** Ports of the practice registrars, by login. */
  readonly logins: Readonly<Record<string, number>>;
  readonly at: PracticePorts;
}

/** True when the practice world answers. */
export async function practiceAnswers(control: number): Promise<boolean> {
  return (await fetch(`http://127.0.0.1:${control}/`, { signal: AbortSignal.timeout(4000) })).ok;
}

/** True while the jobs say every so often that they are well; also when the database cannot be asked, which is not their fault. */
export async function jobsBeat(url: string): Promise<boolean> {
  const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: 3000, query_timeout: 3000 });
  client.on('error', () => undefined);
  try {
    await client.connect();
    const { rows } = await client.query<{ silent: boolean }>(
      `select seen_at < now() - interval '${LONGEST_SILENCE_S} seconds' as silent from parts where name = 'jobs'`,
    );
    return rows[0]?.silent !== true;
  } catch {
    return true;
  } finally {
    void client.end().catch(() => undefined);
  }
}

const LONGEST_SILENCE_S = 30;

/** True when PostgreSQL answers a question. */
export async function postgresAnswers(url: string): Promise<boolean> {
  const client = new pg.Client({ connectionString: url, connectionTimeoutMillis: 3000, query_timeout: 3000 });
  client.on('error', () => undefined);
  try {
    await client.connect();
    await client.query('select 1');
    return true;
  } finally {
    // An end that waits for a halted server would wait for ever.
    void client.end().catch(() => undefined);
  }
}
