import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { from as copyFrom } from 'pg-copy-streams';
import { DAY_MS, type Day, startOfDay } from '@/core/time';
import type { Transaction } from './pool';

/** The types of columns that are written: what each is handed as stands in `Copied`. */
export type ColumnType = keyof Copied;
interface Copied {
  readonly int4: number;
  readonly int8: number;
  readonly bool: boolean;
  readonly text: string;
  readonly 'text[]': readonly string[];
  /** Milliseconds since 1970, as everywhere. */
  readonly timestamptz: number;
  readonly date: Day;
  readonly uuid: string;
}

/** What columns of some types hold, each from the first row to the last; `null` or nothing stands for null, and so does a column that is left out. */
export type ColumnsOf<C extends Readonly<Record<string, ColumnType>>> = {
  readonly [K in keyof C]?: readonly (Copied[C[K]] | null | undefined)[];
};

/** Rows as PostgreSQL's binary COPY reads them, packed while rows before them are on their way. */
export interface PackedRows<Column extends string = string> {
  /** The columns of which any row holds something: the others are left out. */
  readonly said: readonly Column[];
  readonly bytes: Buffer;
}

/** Puts packed rows into a table: neither side writes or reads a figure or a date as text. */
export async function copyIn(tx: Transaction, table: string, { said, bytes }: PackedRows): Promise<void> {
  const named = said.map((column) => `"${column}"`).join(', ');
  await pipeline(Readable.from([bytes]), tx.query(copyFrom(`copy ${table} (${named}) from stdin (format binary)`)));
}

/**
 * Packs rows that are held as columns (documentation of COPY, File Formats, Binary Format; of each type its `recv` function). Every
 * column has as many values as there are `rows`: throws where one has not.
 */
export function packRows<C extends Readonly<Record<string, ColumnType>>>(
  types: C,
  columns: ColumnsOf<C>,
  rows: number,
): PackedRows<keyof C & string> {
  const all = Object.entries(types).map(([column, type]) => ({
    column,
    values: (columns[column] ?? []) as readonly unknown[],
    write: WRITERS[type] as Write,
  }));
  const said = all.filter(({ values }) => values.some((value) => value !== undefined && value !== null));
  const torn = said.find(({ values }) => values.length !== rows);
  if (torn) throw new RangeError(`column ${torn.column} has ${torn.values.length} values for ${rows} rows`);
  // Rows that say nothing are rows all the same.
  const fields = said.length > 0 ? said : all.slice(0, 1);
  const bytes = new Bytes();
  bytes.raw(SIGNATURE);
  bytes.int32(0);
  bytes.int32(0);
  for (let row = 0; row < rows; row += 1) {
    bytes.int16(fields.length);
    for (const { values, write } of fields) {
      const value = values[row];
      if (value === null || value === undefined) bytes.int32(NULL_LENGTH);
      else write(bytes, value as never);
    }
  }
  bytes.int16(END);
  return { said: fields.map(({ column }) => column), bytes: bytes.written() };
}

type Write = (bytes: Bytes, value: never) => void;

const SIGNATURE = Buffer.from('PGCOPY\n\xff\r\n\0', 'latin1');
const NULL_LENGTH = -1;
const END = -1;
const TEXT_OID = 25;
const POSTGRES_EPOCH = startOfDay('2000-01-01' as Day);

const WRITERS: { readonly [T in ColumnType]: (bytes: Bytes, value: Copied[T]) => void } = {
  int4: (bytes, value) => bytes.lengthThen(4).int32(value),
  int8: (bytes, value) => bytes.lengthThen(8).int64(value),
  bool: (bytes, value) => bytes.lengthThen(1).int8(value ? 1 : 0),
  text: (bytes, value) => bytes.text(value),
  'text[]': (bytes, values) => bytes.measured(() => textArray(bytes, values)),
  timestamptz: (bytes, at) => bytes.lengthThen(8).int64((at - POSTGRES_EPOCH) * 1000),
  date: (bytes, day) => bytes.lengthThen(4).int32((startOfDay(day) - POSTGRES_EPOCH) / DAY_MS),
  uuid: (bytes, value) => bytes.lengthThen(16).raw(uuidBytes(value)),
};

/** Rows that come together share one, mostly. */
let lastUuid = { text: '', bytes: Buffer.alloc(0) };
function uuidBytes(text: string): Buffer {
  if (lastUuid.text !== text) lastUuid = { text, bytes: Buffer.from(text.replaceAll('-', ''), 'hex') };
  return lastUuid.bytes;
}

/** One dimension from 1 on, or none for an empty array; no nulls. */
function textArray(bytes: Bytes, values: readonly string[]): void {
  bytes.int32(values.length === 0 ? 0 : 1);
  bytes.int32(0);
  bytes.int32(TEXT_OID);
  if (values.length === 0) return;
  bytes.int32(values.length);
  bytes.int32(1);
  for (const value of values) bytes.text(value);
}

/** A text up to this length is written here, where it is plain: handing it to the encoder takes longer. */
const SHORT = 64;
const LAST_PLAIN = 0x7f;

/** Bytes in network order, written one after the other into memory that grows. */
class Bytes {
  #bytes = Buffer.allocUnsafe(1 << 16);
  #view = viewOf(this.#bytes);
  #at = 0;

  /** Makes room for so many bytes, and answers where they go. */
  #next(length: number): number {
    const at = this.#at;
    if (at + length > this.#bytes.length) {
      const grown = Buffer.allocUnsafe(Math.max(this.#bytes.length * 2, at + length));
      this.#bytes.copy(grown, 0, 0, at);
      this.#bytes = grown;
      this.#view = viewOf(grown);
    }
    this.#at = at + length;
    return at;
  }

  int8(value: number): void {
    const at = this.#next(1);
    this.#view.setInt8(at, value);
  }
  int16(value: number): void {
    const at = this.#next(2);
    this.#view.setInt16(at, value);
  }
  int32(value: number): void {
    const at = this.#next(4);
    this.#view.setInt32(at, value);
  }
  /** A whole number up to 2^53 either way. */
  int64(value: number): void {
    const high = Math.floor(value / 2 ** 32);
    this.int32(high);
    this.int32((value - high * 2 ** 32) | 0);
  }
  raw(bytes: Uint8Array): void {
    const at = this.#next(bytes.length);
    this.#bytes.set(bytes, at);
  }
  lengthThen(length: number): this {
    this.int32(length);
    return this;
  }
  /** A text with its length. PostgreSQL keeps no NUL; it is left out. */
  text(value: string): void {
    if (this.#isWrittenPlain(value)) return;
    const text = value.includes('\0') ? value.replaceAll('\0', '') : value;
    // No letter takes more than three bytes for each of its UTF-16 units.
    const at = this.#next(4 + text.length * 3);
    const length = this.#bytes.write(text, at + 4, 'utf8');
    this.#view.setInt32(at, length);
    this.#at = at + 4 + length;
  }
  /** Writes a short text of ASCII letters, one byte each; answers false, and has written nothing, where it is none. */
  #isWrittenPlain(value: string): boolean {
    const { length } = value;
    if (length > SHORT) return false;
    const at = this.#next(4 + length);
    const bytes = this.#bytes;
    for (let i = 0; i < length; i += 1) {
      const code = value.charCodeAt(i);
      if (code === 0 || code > LAST_PLAIN) {
        this.#at = at;
        return false;
      }
      bytes[at + 4 + i] = code;
    }
    this.#view.setInt32(at, length);
    return true;
  }
  /** What `write` writes, with its length before it. */
  measured(write: () => void): void {
    const from = this.#next(4) + 4;
    write();
    this.#view.setInt32(from - 4, this.#at - from);
  }

  written(): Buffer {
    return this.#bytes.subarray(0, this.#at);
  }
}

const viewOf = ({ buffer, byteOffset, byteLength }: Buffer) => new DataView(buffer, byteOffset, byteLength);
