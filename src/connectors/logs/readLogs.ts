import { open, readdir } from 'node:fs/promises';
import { join } from 'node:path';

/** A line of the log that tells of trouble. */
export interface Trouble {
  readonly at: number;
  readonly part: string;
  readonly isError: boolean;
  readonly what: string;
  readonly cause: string | null;
  readonly requestId: string | null;
}

/** Where the start command keeps the logs; `null` when it was not it that started the program. */
export function logFolder(): string | null {
  return process.env.NAME_LEDGER_LOGS ?? null;
}

/** So much of the end of each log is looked through. */
const TAIL_BYTES = 256 * 1024;
const WARNING = 40;
const ERROR = 50;

/** The last troubles in the logs of a folder, newest first. A log that cannot be read is left out. */
export async function readTroubles(folder: string, most: number): Promise<Trouble[]> {
  const files = (await readdir(folder).catch(() => [])).filter((file) => file.endsWith('.log'));
  const tails = await Promise.all(files.map((file) => tail(join(folder, file)).catch(() => '')));
  return tails
    .flatMap((text) => text.split('\n').flatMap((line) => troubleOf(line) ?? []))
    .sort((a, b) => b.at - a.at)
    .slice(0, most);
}

async function tail(file: string): Promise<string> {
  const handle = await open(file, 'r');
  try {
    const { size } = await handle.stat();
    const length = Math.min(size, TAIL_BYTES);
    const { buffer } = await handle.read(Buffer.alloc(length), 0, length, size - length);
    return buffer.toString('utf8');
  } finally {
    await handle.close();
  }
}

function troubleOf(line: string): Trouble | null {
  if (!line.startsWith('{')) return null;
  let told: Readonly<Record<string, unknown>>;
  try {
    told = JSON.parse(line) as Record<string, unknown>;
  } catch {
    // The first line of a tail is cut.
    return null;
  }
  const { level, time, part, msg, err, requestId } = told;
  if (typeof level !== 'number' || level < WARNING || typeof time !== 'number') return null;
  const cause = (err as { message?: unknown } | undefined)?.message;
  return {
    at: time,
    part: String(part ?? ''),
    isError: level >= ERROR,
    what: String(msg ?? '').slice(0, 500),
    cause: typeof cause === 'string' ? cause.slice(0, 500) : null,
    requestId: typeof requestId === 'string' ? requestId : null,
  };
}
