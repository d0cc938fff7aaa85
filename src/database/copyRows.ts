import { setImmediate } from 'node:timers/promises';
import type { PoolClient } from 'pg';
import { to as copyTo } from 'pg-copy-streams';
import { HEADER_BYTES } from './copyOut';

/** In place of a row's number of fields, behind the last. */
const END = -1;
/** Instants are counted from here, in microseconds. */
const EPOCH_MS = Date.UTC(2000, 0, 1);
const HIGH_WORD = 2 ** 32;

/**
 * One row as PostgreSQL writes it in its binary COPY format (documentation of COPY, File Formats, Binary Format; of each type its `send`
 * function). Its fields are read one after the other, in the order in which the query names them; with the next row they are gone. Figures
 * are `NaN` where there is none.
 */
export class BinaryRow {
  #bytes: Buffer = Buffer.alloc(0);
  #at = 0;

  /** Begins with the row whose first field begins at a byte. */
  begin(bytes: Buffer, at: number): void {
    this.#bytes = bytes;
    this.#at = at;
  }

  /** Goes behind the next field. Answers where it begins; below nothing where it is null. */
  #next(): number {
    const length = this.#bytes.readInt32BE(this.#at);
    const from = this.#at + 4;
    this.#at = from + Math.max(0, length);
    return length < 0 ? -1 : from;
  }

  /** The next field's bytes as letters of Latin-1, one for each: a key of what is alike. */
  key(): string | null {
    const from = this.#next();
    return from < 0 ? null : this.#bytes.toString('latin1', from, this.#at);
  }

  /** Copies the next field's bytes to where `into` has room for them. Answers how many they are. */
  copy(into: Buffer, at: number): number {
    const from = this.#next();
    return from < 0 ? 0 : this.#bytes.copy(into, at, from, this.#at);
  }

  text(): string | null {
    const from = this.#next();
    return from < 0 ? null : this.#bytes.toString('utf8', from, this.#at);
  }

  int32(): number {
    const from = this.#next();
    return from < 0 ? Number.NaN : this.#bytes.readInt32BE(from);
  }

  /** A whole number within 2^53. */
  int64(): number {
    const from = this.#next();
    return from < 0 ? Number.NaN : this.#bytes.readInt32BE(from) * HIGH_WORD + this.#bytes.readUInt32BE(from + 4);
  }

  /** An instant in milliseconds since 1970. */
  instant(): number {
    return Math.round(this.int64() / 1000) + EPOCH_MS;
  }
}

/** The texts of a field of type `text[]`, by its key. Throws for one with a null in it. */
export function textsOf(key: string): string[] {
  const bytes = Buffer.from(key, 'latin1');
  if (bytes.readInt32BE(0) === 0) return [];
  const texts: string[] = [];
  const count = bytes.readInt32BE(12);
  let at = 20;
  for (let i = 0; i < count; i += 1) {
    const length = bytes.readInt32BE(at);
    if (length < 0) throw new RangeError('a list of texts with a null in it');
    texts.push(bytes.toString('utf8', at + 4, at + 4 + length));
    at += 4 + length;
  }
  return texts;
}

/** Where the row that begins at a byte ends; below nothing where it has not come whole. */
function endOfRow(bytes: Buffer, at: number): number {
  if (at + 2 > bytes.length) return -1;
  let end = at + 2;
  for (let field = bytes.readInt16BE(at); field > 0; field -= 1) {
    if (end + 4 > bytes.length) return -1;
    end += 4 + Math.max(0, bytes.readInt32BE(end));
  }
  return end > bytes.length ? -1 : end;
}

/** For so long at most rows are taken before whoever else asked this thread has a turn: they come faster than they are taken. */
const BREATH_MS = 1;

/**
 * Runs a query and hands each row over while PostgreSQL is still writing the next ones: hundreds of thousands of rows are read in the time that
 * it takes to write them, without an object for each.
 */
export async function copyRows(client: PoolClient, query: string, take: (row: BinaryRow) => void): Promise<void> {
  const row = new BinaryRow();
  let rest: Buffer = Buffer.alloc(0);
  let isBegun = false;
  let since = performance.now();
  for await (const chunk of client.query(copyTo(`copy (${query}) to stdout (format binary)`))) {
    const bytes = rest.length === 0 ? (chunk as Buffer) : Buffer.concat([rest, chunk as Buffer]);
    let at = 0;
    if (!isBegun && bytes.length >= HEADER_BYTES) {
      at = HEADER_BYTES + bytes.readInt32BE(HEADER_BYTES - 4);
      isBegun = true;
    }
    for (let end = endOfRow(bytes, at); isBegun && end >= 0; end = endOfRow(bytes, at)) {
      if (bytes.readInt16BE(at) === END) {
        at = bytes.length;
        break;
      }
      row.begin(bytes, at + 2);
      take(row);
      at = end;
    }
    rest = bytes.subarray(at);
    if (performance.now() - since > BREATH_MS) {
      await setImmediate();
      since = performance.now();
    }
  }
}
