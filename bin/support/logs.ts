import { mkdirSync } from 'node:fs';
import type { Readable } from 'node:stream';
import { createStream, type RotatingFileStream } from 'rotating-file-stream';

/** Where the lines of one part of the program go. */
export interface PartLog {
  /** Takes all that a process says; lines that are not JSON (a crash, say) are wrapped, whole pieces together. */
  follow(stream: Readable | null | undefined, level?: 30 | 50): void;
  /** A line of the start command itself. */
  say(level: 30 | 40 | 50, message: string): void;
  close(): Promise<void>;
}

const KEPT_FILES = 7;

/**
 * Opens the log of a part: `<part>.log` in `directory`, a new file each day and each 10 MB, seven kept. `echo` shows the
 * lines on the terminal as well.
 */
export function openLog(directory: string, part: string, echo: boolean): PartLog {
  mkdirSync(directory, { recursive: true, mode: 0o700 });
  const file: RotatingFileStream = createStream(`${part}.log`, {
    path: directory,
    size: '10M',
    interval: '1d',
    maxFiles: KEPT_FILES,
    mode: 0o600,
  });
  // A full disk must not end the program: what cannot be kept is still shown when asked for.
  file.on('error', (error) => console.error(`The log of ${part} cannot be written: ${error.message}`));
  const write = (line: string) => {
    file.write(`${line}\n`);
    if (echo) process.stdout.write(`${line}\n`);
  };
  const wrap = (level: number, msg: string) => write(JSON.stringify({ level, time: Date.now(), part, msg }));
  return {
    follow(stream, level = 30) {
      let rest = '';
      stream?.setEncoding('utf8').on('data', (piece: string) => {
        const lines = (rest + piece).split('\n');
        rest = lines.pop() ?? '';
        const said: string[] = [];
        for (const line of lines) {
          if (line.startsWith('{') && line.endsWith('}')) write(line);
          else if (line.trim() !== '') said.push(line);
        }
        if (said.length > 0) wrap(level, said.join('\n').slice(0, 8000));
        // A process that never ends its line is not followed without bound.
        if (rest.length > 1_000_000) rest = '';
      });
    },
    say: wrap,
    close: () => new Promise((done) => file.end(done)),
  };
}
