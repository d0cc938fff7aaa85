import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { homedir } from 'node:os';
import { join } from 'node:path';
import { isDev } from './app';

const usual = process.getuid?.() === 0 ? '/var/lib/name-ledger' : join(homedir(), '.local/share/name-ledger');

/** Where the program keeps its own database and logs: readable by PostgreSQL's user when started as root. Work on it has another. */
export const home = process.env.NAME_LEDGER_HOME ?? (isDev ? `${usual}-dev` : usual);

export const paths = {
  lock: join(home, 'running.pid'),
  /** Which ledger is open: `own` or `demo`. */
  open: join(home, 'open'),
  /** Marked a home of before whose only ledger was the demo. */
  earlierDemo: join(home, 'demo'),
  postgres: join(home, 'postgres'),
  logs: join(home, 'logs'),
  key: join(home, 'key'),
  nextKey: join(home, 'key.next'),
  /** Processes that an earlier start may have left behind. */
  pid: (part: string) => join(home, `${part}.pid`),
} as const;

const write = (file: string, text: string) => writeFileSync(file, text, { mode: 0o600, flush: true });

/** The text that seals passwords: made once for an installation. */
export function ownKey(): string {
  if (!existsSync(paths.key)) write(paths.key, randomBytes(32).toString('hex'));
  return readFileSync(paths.key, 'utf8').trim();
}

/** A new key text, laid beside the old one until everything is sealed with it: a crash in between is carried on. */
export function nextKey(): string {
  if (!existsSync(paths.nextKey)) write(paths.nextKey, randomBytes(32).toString('hex'));
  return readFileSync(paths.nextKey, 'utf8').trim();
}

export const isRotating = () => existsSync(paths.nextKey);

/** The new key takes the old one's place. */
export function takeNextKey(): void {
  renameSync(paths.nextKey, paths.key);
}

/** The process of another start that runs in this home; `null` without one. */
export function alreadyRunning(): number | null {
  if (!existsSync(paths.lock)) return null;
  const pid = Number(readFileSync(paths.lock, 'utf8'));
  const command = existsSync(`/proc/${pid}/cmdline`) ? readFileSync(`/proc/${pid}/cmdline`, 'utf8') : '';
  return command.includes('support/start.ts') ? pid : null;
}
