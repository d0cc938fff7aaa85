import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { type BackupPiece, DamagedBackup, readBackup } from './readBackup';

/** Reads a text that comes in pieces of so many octets. */
async function read(text: string, octetsAtOnce = 7): Promise<BackupPiece[]> {
  async function* pieces() {
    const octets = new TextEncoder().encode(text);
    for (let i = 0; i < octets.length; i += octetsAtOnce) yield octets.slice(i, i + octetsAtOnce);
  }
  const found: BackupPiece[] = [];
  for await (const piece of readBackup(pieces())) found.push(piece);
  return found;
}

/** The tables as a reader of the whole text finds them. */
const tablesOf = (pieces: readonly BackupPiece[]) => {
  // A map: a table may be called like a member that every object has.
  const tables = new Map<string, unknown[]>();
  for (const piece of pieces)
    if (piece.kind === 'rows')
      tables.set(piece.table, [
        ...(tables.get(piece.table) ?? []),
        ...piece.rows.map((row) => JSON.parse(row) as unknown),
      ]);
  return Object.fromEntries(tables);
};

describe('a backup file is read as it comes', () => {
  test('the head, then each table with its rows as they stand', async () => {
    const text = '{"format":"f","version":1,"rows":{"a":1,"b":0},"tables":{"a":[{"x":"}]\\"{"}],"b":[]}}\n';
    expect(await read(text)).toEqual([
      { kind: 'head', head: { format: 'f', version: 1, rows: { a: 1, b: 0 }, tables: null } },
      { kind: 'rows', table: 'a', rows: ['{"x":"}]\\"{"}'] },
      { kind: 'rows', table: 'b', rows: [] },
    ]);
  });

  test('however it is cut and laid out, it says what JSON.parse finds (RFC 8259)', async () => {
    const row = fc.dictionary(fc.string({ minLength: 1 }), fc.jsonValue());
    const tables = fc.dictionary(fc.stringMatching(/^[a-z_]{1,12}$/), fc.array(row, { maxLength: 6 }), { maxKeys: 4 });
    await fc.assert(
      fc.asyncProperty(tables, fc.integer({ min: 1, max: 50 }), fc.constantFrom(0, 2), async (made, cut, indent) => {
        const text = JSON.stringify({ format: 'f', version: 1, tables: made }, null, indent);
        expect(tablesOf(await read(text, cut))).toEqual(JSON.parse(JSON.stringify(made)));
      }),
      { numRuns: 300 },
    );
  });

  test('many rows come some at a time, none lost', async () => {
    const rows = Array.from({ length: 1234 }, (_, id) => ({ id }));
    const pieces = await read(JSON.stringify({ format: 'f', tables: { a: rows } }), 4096);
    expect(pieces.length).toBeGreaterThan(3);
    expect(tablesOf(pieces)).toEqual({ a: rows });
  });

  test('cut anywhere, it is damaged, never shorter', async () => {
    const text = '{"format":"f","version":1,"tables":{"a":[{"x":"y"},{"x":"z"}],"b":[]}}';
    for (let length = 0; length < text.length; length += 1)
      await expect(read(text.slice(0, length)), `at ${length}`).rejects.toThrow(DamagedBackup);
  });

  test.each([
    ['something behind its end', '{"format":"f","tables":{}}{"a":1}'],
    ['a break within a text', '{"format":"f","tables":{"a":[{"x":"\n"}]}}'],
    ['a table without a name', '{"format":"f","tables":{[1]}}'],
    ['a head without end', `{"format":"${'x'.repeat(1_100_000)}"}`],
    ['brackets that do not match', '{"format":"f","tables":{}}]'],
    ['nothing at all', ''],
    ['a table in the open', 'x{"tables":{'],
  ])('%s', async (_what, text) => {
    await expect(read(text, 65_536)).rejects.toThrow(DamagedBackup);
  });
});
