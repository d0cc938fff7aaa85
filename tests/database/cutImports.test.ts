import { afterAll, beforeAll, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { endCutImports } from '@/usecases/imports/cleanUp';
import { importAtOnce } from '@/usecases/imports/importAtOnce';
import { beginImport, readImport, takeIn } from '@/usecases/imports/readImport';
import { writeImport } from '@/usecases/imports/writeImport';
import { emptyLedger, type TestLedger } from './ledger';

let ledger: TestLedger;
beforeAll(async () => {
  ledger = await emptyLedger();
});
afterAll(() => ledger.close());

const status = async (id: string) =>
  (await ledger.database.query('select status from imports where id = $1', [id])).rows[0]?.status;

test('a crash of the database takes what was read of a list with it: nothing is written in its place, and it can be read again', async () => {
  const read = async () => {
    const begun = await beginImport(ledger, { content: Buffer.from('brinegate.com'), source: 'crashed' });
    if (isRefusal(begun)) throw new Error(begun.message);
    const ready = await readImport(ledger, begun.id, begun.options);
    if (isRefusal(ready)) throw new Error(ready.message);
    // What PostgreSQL does to an unlogged table when it starts after a crash.
    await ledger.database.query('delete from import_rows where import_id = $1', [ready.id]);
    return ready;
  };
  const [written, left] = [await read(), await read()];
  expect(await writeImport(ledger, written.id)).toMatchObject({ code: 'import-not-ready' });
  expect([await status(written.id), (await ledger.database.query('select ascii from names')).rowCount]).toEqual([
    'failed',
    0,
  ]);
  expect([await endCutImports(ledger), await status(left.id)]).toEqual([1, 'failed']);
  expect(await readImport(ledger, left.id, left.options)).toMatchObject({ status: 'ready' });
  expect(await writeImport(ledger, left.id)).toMatchObject({ added: 1 });
  const { rows } = await ledger.database.query(
    "select relname, relpersistence as kept from pg_class where relname in ('import_rows', 'imports') order by 1",
  );
  expect(rows).toEqual([
    { relname: 'import_rows', kept: 'u' },
    { relname: 'imports', kept: 'p' },
  ]);
});

test('a list whose reading was cut off by the end of its process is ended, and can be read again', async () => {
  const begun = await beginImport(ledger, { content: Buffer.from('brinequay.com'), source: 'cut off' });
  if (isRefusal(begun)) throw new Error(begun.message);
  await ledger.database.query(
    "update imports set status = 'reading', moved_at = now() - interval '2 minutes' where id = $1",
    [begun.id],
  );
  expect([await endCutImports(ledger), await status(begun.id)]).toEqual([0, 'reading']);
  expect(await readImport(ledger, begun.id, begun.options)).toMatchObject({ code: 'import-busy' });
  await ledger.database.query("update imports set moved_at = now() - interval '4 minutes' where id = $1", [begun.id]);
  expect([await endCutImports(ledger), await status(begun.id)]).toEqual([1, 'failed']);
  expect(await readImport(ledger, begun.id, begun.options)).toMatchObject({ status: 'ready' });
});

test('the text of a list that another program brings in at once is not kept: what was read of it can be written, and it is not read again', async () => {
  const request = { content: Buffer.from('name\nbrinelock.com'), source: 'another program', isReadAtOnce: true };
  const begun = await takeIn(ledger, request);
  if (isRefusal(begun)) throw new Error(begun.message);
  const { id, options } = begun.row;
  expect(await readImport(ledger, id, options, begun.source)).toMatchObject({ status: 'ready' });
  expect(await writeImport(ledger, id)).toMatchObject({ added: 1, isNoted: false });

  const cut = await takeIn(ledger, request);
  if (isRefusal(cut)) throw new Error(cut.message);
  expect(await readImport(ledger, cut.row.id, cut.row.options)).toMatchObject({
    code: 'import-unknown',
    message: 'The text of this list is not kept. Bring the list again.',
  });
  expect(await status(cut.row.id)).toBe('failed');
});

test('what is worth a look is told whoever writes it, and looked for only where there is something', async () => {
  const bring = (...lines: string[]) =>
    importAtOnce(ledger, {
      content: Buffer.from(lines.join('\n')),
      account: null,
      dateOrder: null,
      fullList: false,
      allowPrivateEndings: false,
      dryRun: lines.length > 2,
    });
  expect(await bring('name,expires', 'brinewharf.com,2027-02-30')).toMatchObject({
    new: 1,
    notes: [{ line: 2, name: 'brinewharf.com', message: expect.stringContaining('There is no such day') }],
  });
  expect(await bring('name,expires', 'brineyard.com,soon', 'brinecove.com,2027-03-01')).toMatchObject({
    new: 2,
    notes: [{ line: 2, name: 'brineyard.com' }],
  });
  expect(await bring('name,expires', 'brinemole.com,2027-03-01')).toMatchObject({ new: 1, notes: [] });
});
