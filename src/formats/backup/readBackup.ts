/** What a backup file says of itself, before its tables. */
export interface BackupHead {
  readonly format?: unknown;
  readonly version?: unknown;
  /** How many rows each table has, in files that say so. */
  readonly rows?: Readonly<Record<string, number>>;
}

/** A piece of a backup file, in its order: the head once, then the rows of each table, some at a time, each as JSON text. */
export type BackupPiece =
  | { readonly kind: 'head'; readonly head: BackupHead }
  | { readonly kind: 'rows'; readonly table: string; readonly rows: readonly string[] };

/** A file that is not a whole backup. */
export class DamagedBackup extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'DamagedBackup';
  }
}

const QUOTE = 0x22;
const BACKSLASH = 0x5c;
const isOpening = (octet: number) => octet === 0x7b || octet === 0x5b;
const isClosing = (octet: number) => octet === 0x7d || octet === 0x5d;
const SPACE = 0x20;
const LARGEST_HEAD = 1_000_000;
const LARGEST_ROW = 64_000_000;
/** Rows are handed on so many at a time. */
const ROWS_AT_ONCE = 500;

/** Depths of brackets: the file, its tables, one table, one row. */
const FILE = 1;
const TABLES = 2;
const TABLE = 3;

/**
 * Reads a backup file as it comes, without ever holding more than a row of it: what stands between the brackets of a row is handed
 * on unread, for the database reads it better. Throws `DamagedBackup` for what is no backup, or ends too early.
 */
// Long because one pass over the octets shares one state: where it stands, and what is held.
export async function* readBackup(source: AsyncIterable<Uint8Array>): AsyncGenerator<BackupPiece> {
  let depth = 0;
  let inText = false;
  let escaped = false;
  /** Octets of the head, of a table's name, or of a row, as far as they have come. */
  let held: Buffer[] = [];
  let heldSize = 0;
  let isHeadRead = false;
  let isOver = false;
  let table = '';
  let rows: string[] = [];

  const hold = (piece: Buffer, most: number) => {
    heldSize += piece.length;
    if (heldSize > most) throw new DamagedBackup('one part of it is longer than any part of a backup');
    held.push(Buffer.from(piece));
  };
  const take = () => {
    const text = Buffer.concat(held).toString('utf8');
    held = [];
    heldSize = 0;
    return text;
  };

  for await (const chunk of source) {
    const octets = Buffer.from(chunk.buffer, chunk.byteOffset, chunk.byteLength);
    let start = 0;
    for (let i = 0; i < octets.length; i += 1) {
      const octet = octets[i] as number;
      if (inText) {
        if (octet < SPACE) throw new DamagedBackup('a text in it is broken off');
        if (escaped) escaped = false;
        else if (octet === BACKSLASH) escaped = true;
        else if (octet === QUOTE) inText = false;
        continue;
      }
      if (octet === QUOTE) {
        inText = true;
        continue;
      }
      // Rows are handed to the database line by line: breaks between their members are blanks.
      if (octet < SPACE && depth > TABLE) octets[i] = SPACE;
      if (isOver && octet > SPACE) throw new DamagedBackup('something stands behind its end');
      if (isOpening(octet)) {
        depth += 1;
        if (depth === TABLES && !isHeadRead) {
          hold(octets.subarray(start, i), LARGEST_HEAD);
          const text = take();
          // Another object of the head, like the numbers of rows, is read along with it.
          if (/"tables"\s*:\s*$/.test(text)) {
            yield { kind: 'head', head: headOf(text) };
            isHeadRead = true;
          } else {
            held = [Buffer.from(text)];
            heldSize = held[0]?.length ?? 0;
            hold(octets.subarray(i, i + 1), LARGEST_HEAD);
          }
          start = i + 1;
        } else if (isHeadRead && depth === TABLE) {
          hold(octets.subarray(start, i), LARGEST_HEAD);
          table = tableOf(take());
          start = i + 1;
        } else if (isHeadRead && depth === TABLE + 1) start = i;
      } else if (isClosing(octet)) {
        if (isHeadRead && depth === TABLE + 1) {
          hold(octets.subarray(start, i + 1), LARGEST_ROW);
          rows.push(take());
          start = i + 1;
          if (rows.length >= ROWS_AT_ONCE) {
            yield { kind: 'rows', table, rows };
            rows = [];
          }
        } else if (isHeadRead && depth === TABLE) {
          yield { kind: 'rows', table, rows };
          rows = [];
          start = i + 1;
        } else if (depth === FILE) isOver = true;
        depth -= 1;
        if (depth < 0) throw new DamagedBackup('its brackets do not match');
      }
    }
    const isInRow = isHeadRead && depth > TABLE;
    const isNaming = isHeadRead && depth === TABLES;
    if (!isHeadRead || isInRow || isNaming) hold(octets.subarray(start), isInRow ? LARGEST_ROW : LARGEST_HEAD);
  }
  if (!isHeadRead || !isOver || inText) throw new DamagedBackup('it ends too early');
}

function headOf(text: string): BackupHead {
  try {
    return JSON.parse(`${text}null}`) as BackupHead;
  } catch {
    throw new DamagedBackup('its first lines cannot be read');
  }
}

function tableOf(text: string): string {
  const name = /^\s*,?\s*"(\w{1,60})"\s*:\s*$/.exec(text)?.[1];
  if (name === undefined) throw new DamagedBackup('a table in it has no name');
  return name;
}
