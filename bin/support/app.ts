import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { PartLog } from './logs';
import { alive } from './postgres';
import { buildPrograms, type Program, programPath, ROOT, watchPrograms } from './programs';

const NEXT = join(ROOT, 'node_modules/next/dist/bin/next');

/** Room for what lives as long as one request, so that it is cleared away less often; and the leave to clear up when it is quiet. */
const NODE_FLAGS = ['--max-semi-space-size=32', '--expose-gc'];

/** Whether this is a start for work on the program itself: sources are watched, pages are made as they are asked for. */
export const isDev = process.env.NAME_LEDGER_DEV === '1';

const QUIET = { NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: isDev ? 'development' : 'production' } as const;

/** A fingerprint of everything that the build is made from. */
function sources(): string {
  const hash = createHash('sha256');
  const add = (path: string) => {
    if (statSync(path).isDirectory()) for (const entry of readdirSync(path).sort()) add(join(path, entry));
    else if (!/\.(test\.tsx?|sql)$/.test(path)) hash.update(path).update(readFileSync(path));
  };
  for (const part of ['src', 'practice', 'next.config.ts', 'package-lock.json', 'tsconfig.json']) add(join(ROOT, part));
  return hash.digest('hex');
}

const stamp = join(ROOT, '.next/built-from');

/** Builds what runs during work on it, and keeps building; `changed` hears of every program that is new. */
export async function buildForWork(changed: (program: Program) => void): Promise<() => Promise<void>> {
  // The programs stand where the built ones stood.
  rmSync(stamp, { force: true });
  return watchPrograms(changed);
}

/** Builds the application for production, unless what is there was made from the same sources. */
export function build(): void {
  const now = sources();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now) return;
  console.log('Building the application');
  execFileSync(process.execPath, [NEXT, 'build'], {
    cwd: ROOT,
    env: { ...process.env, ...QUIET },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  buildPrograms();
  writeFileSync(stamp, now);
}

export interface RunningApp {
  readonly url: string;
  readonly child: ChildProcess;
  stop(): Promise<void>;
}

/**
 * Serves the built application on loopback and waits until it answers. Without a log nobody hears what it says. `heard` takes what the
 * application asks of the start command.
 */
export async function serve(
  port: number,
  env: Record<string, string>,
  log: PartLog | null,
  heard?: (message: unknown) => void,
): Promise<RunningApp> {
  const child = spawn(process.execPath, [...NODE_FLAGS, programPath('server')], {
    cwd: ROOT,
    env: { ...process.env, ...QUIET, ...env, PORT: String(port) },
    stdio: ['ignore', log ? 'pipe' : 'ignore', log ? 'pipe' : 'inherit', ...(heard ? (['ipc'] as const) : [])],
    detached: true,
  });
  if (heard) child.on('message', heard);
  log?.follow(child.stdout);
  log?.follow(child.stderr, 50);
  const url = `http://127.0.0.1:${port}`;
  const deadline = Date.now() + 60_000;
  while (child.exitCode === null) {
    const answer = await fetch(`${url}/api/v1/health`, { signal: AbortSignal.timeout(5000) }).catch(() => null);
    if (answer?.ok) return { url, child, stop: () => end(child) };
    if (Date.now() > deadline) break;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  await end(child);
  throw new Error(`The application did not answer on ${url}. Is port ${port} taken? Choose another with --port.`);
}

export async function end(child: ChildProcess): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const gone = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGTERM');
  const last = setTimeout(() => child.kill('SIGKILL'), 10_000);
  await gone;
  clearTimeout(last);
}

/** Ends what a killed start left running, if the process of that number still runs `command`. */
export async function endLeftOver(pidFile: string, command: RegExp): Promise<void> {
  if (!existsSync(pidFile)) return;
  const pid = Number(readFileSync(pidFile, 'utf8'));
  rmSync(pidFile, { force: true });
  const running = existsSync(`/proc/${pid}/cmdline`) ? readFileSync(`/proc/${pid}/cmdline`, 'utf8') : '';
  if (!command.test(running)) return;
  process.kill(pid, 'SIGTERM');
  for (let i = 0; i < 100 && alive(pid); i += 1) await new Promise((resolve) => setTimeout(resolve, 50));
  if (alive(pid)) process.kill(pid, 'SIGKILL');
}
