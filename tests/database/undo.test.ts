import { afterEach, describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import type { Done } from '@/usecases/changing';
import { importAtOnce } from '@/usecases/imports/importAtOnce';
import { editNames } from '@/usecases/names/edit';
import { addEntry } from '@/usecases/names/entries';
import { nameOn } from '@/usecases/names/one';
import { undo, undoLast } from '@/usecases/names/undo';
import { emptyLedger, type TestLedger } from './ledger';

let ledger: TestLedger;
afterEach(() => ledger.close());

const NAME = 'copperbuoy.com';
const one = () => nameOn(ledger, NAME, new URLSearchParams());
const idOf = async () =>
  (await ledger.database.query('select id from names where ascii = $1', [NAME])).rows[0]?.id as number;
const edit = async (change: object) => {
  const done = await editNames(ledger, { nameIds: [await idOf()], edit: change });
  if (isRefusal(done)) throw new Error(done.message);
  return done;
};

async function begin() {
  ledger = await emptyLedger();
  await importAtOnce(ledger, {
    content: new TextEncoder().encode(`Domain,Account,Expires\n${NAME},Quaymark,2027-03-09`),
    account: null,
    dateOrder: null,
    fullList: false,
    allowPrivateEndings: false,
    dryRun: false,
  });
}

describe('taking back what was done last', () => {
  test('an empty ledger has nothing to take back', async () => {
    ledger = await emptyLedger();
    expect(await undoLast(ledger)).toMatchObject({ code: 'undo-unknown', message: 'There is nothing to take back.' });
  });

  test('one act after the other, the newest first; what was taken back is passed over', async () => {
    await begin();
    await edit({ notes: 'first' });
    await edit({ addTags: ['coast'] });
    await edit({ notes: 'second' });
    expect(await undoLast(ledger)).toMatchObject({ changed: 1 });
    expect(await one()).toMatchObject({ notes: 'first', tags: ['coast'] });
    expect(await undoLast(ledger)).toMatchObject({ changed: 1 });
    expect(await one()).toMatchObject({ notes: 'first', tags: [] });
    expect(await undoLast(ledger)).toMatchObject({ changed: 1 });
    expect(await one()).toMatchObject({ notes: '', tags: [] });
  });

  test('what the program did by itself is not taken back for a person', async () => {
    await begin();
    await edit({ notes: 'by hand' });
    await editNames({ ...ledger, by: 'program' }, { nameIds: [await idOf()], edit: { addTags: ['seen'] } });
    expect(await undoLast(ledger)).toMatchObject({ summary: expect.stringContaining('Taken back') });
    expect(await one()).toMatchObject({ notes: '', tags: ['seen'] });
  });

  test('what changed again since is said, and both stay', async () => {
    await begin();
    const { batchId } = (await edit({ notes: 'by hand' })) as Done & { batchId: number };
    await editNames({ ...ledger, by: 'program' }, { nameIds: [await idOf()], edit: { notes: 'by the program' } });
    const refused = { code: 'undo-changed-since', message: expect.stringContaining(NAME) };
    expect(await undoLast(ledger)).toMatchObject(refused);
    expect(await undo(ledger, batchId)).toMatchObject(refused);
    expect(await one()).toMatchObject({ notes: 'by the program' });
  });

  test('asked for ten times at once, it is taken back once', async () => {
    await begin();
    const { batchId } = (await edit({ notes: 'by hand' })) as Done & { batchId: number };
    const answers = await Promise.all(Array.from({ length: 10 }, () => undo(ledger, batchId)));
    expect(answers.filter((answer) => !isRefusal(answer))).toHaveLength(1);
    expect(answers.filter(isRefusal).every(({ code }) => code === 'undo-done')).toBe(true);
    expect(await one()).toMatchObject({ notes: '' });
  });

  test('money is taken back by a counter-entry: nothing is erased', async () => {
    await begin();
    const entry = { nameId: await idOf(), onDay: '2026-11-20', kind: 'other', minor: 1250, currency: 'USD' };
    expect(isRefusal(await addEntry(ledger, entry))).toBe(false);
    expect(await one()).toMatchObject({ spent: [{ amount: '12.50', currency: 'USD' }] });
    expect(await undoLast(ledger)).not.toMatchObject({ kind: 'refusal' });
    expect(await one()).toMatchObject({ spent: [{ amount: '0.00', currency: 'USD' }] });
    expect((await ledger.database.query('select minor::int from entries order by id')).rows).toEqual([
      { minor: 1250 },
      { minor: -1250 },
    ]);
  });
});
