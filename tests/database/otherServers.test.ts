import { expect, inject, onTestFinished, test } from 'vitest';
import { mergeColumns, NameTable } from '@/core/ledger';
import { readLedger } from '@/database/backup';
import { selectLedgerColumns } from '@/database/ledgerColumns';
import { migrate } from '@/database/migrate';
import { importAtOnce } from '@/usecases/imports/importAtOnce';
import { nameDetail } from '@/usecases/names/detail';
import { exportCsv } from '@/usecases/names/export';
import { nameOn } from '@/usecases/names/one';
import { undo } from '@/usecases/names/undo';
import { ledgerOn, type TestLedger } from './ledger';
import { databaseAt, runAdmin } from './postgres';

/** Each server orders texts as its language does, unless it is told: Unicode Technical Standard 35, part 5, and CLDR's rules of Danish and Czech. */
const LANGUAGES = [
  { language: 'da', behind: ['mzurf.com', 'maarsk-buoy.com'] },
  { language: 'cs', behind: ['hzest.com', 'chalkmoor.com'] },
  { language: 'en-u-ka-shifted', behind: ['tidea.com', 'tide-b.com'] },
];

/** A ledger on a server of a language of its own, which `settings` say more of. */
async function ledgerIn(language: string, settings: Readonly<Record<string, string>> = {}) {
  const admin = inject('postgresUrl');
  const name = `ledger_${process.pid}_in_${language.replaceAll('-', '_')}`;
  await runAdmin(admin, `drop database if exists ${name}`);
  await runAdmin(
    admin,
    `create database ${name} template template0 encoding 'UTF8' locale 'C.UTF-8' locale_provider icu icu_locale '${language}'`,
  );
  for (const [setting, value] of Object.entries(settings))
    await runAdmin(admin, `alter role current_user in database ${name} set ${setting} = '${value}'`);
  const url = databaseAt(admin, name);
  await migrate(url);
  const ledger = ledgerOn(url);
  onTestFinished(async () => {
    await ledger.database.end();
    await runAdmin(admin, `drop database ${name} with (force)`);
  });
  return ledger;
}

/** Brings a list into a ledger. */
const bring = (ledger: Omit<TestLedger, 'close'>, text: string) =>
  importAtOnce(ledger, {
    content: Buffer.from(text),
    account: 'Wrackgate',
    dateOrder: null,
    fullList: false,
    allowPrivateEndings: false,
    dryRun: false,
  });

test.each(LANGUAGES)(
  'names stand letter by letter, whatever changes, on a server that orders texts as $language does',
  async ({ language, behind }) => {
    const ledger = await ledgerIn(language);
    const names = [...behind, 'gullreef.com', 'mabrig.com', 'oysterlamp.com', 'tidec.com', 'wickhaven.com'];
    const { rows } = await ledger.database.query('select w from unnest($1::text[]) w order by w', [behind]);
    expect(rows.map(({ w }) => w)).toEqual(behind);
    await bring(ledger, `name,notes\n${names.map((name) => `${name},from the first list`).join('\n')}`);
    const table = new NameTable(await selectLedgerColumns(ledger.database));
    const inOrder = (ledgerNames: NameTable) => Array.from(ledgerNames.places, (place) => ledgerNames.ascii(place));
    expect(inOrder(table)).toEqual(names.toSorted());
    for (const changed of table.columns.id) {
      const fresh = new NameTable(await selectLedgerColumns(ledger.database, [changed]));
      const merged = new NameTable(mergeColumns(table, fresh, new Set([changed])), table);
      expect(inOrder(merged)).toEqual(names.toSorted());
    }
  },
);

const SAVED = ['accounts', 'names', 'entries', 'batches', 'changes', 'prices'];

/** What comes of the same acts: the name, its days and its history, as it is shown and as it is saved. */
async function told(ledger: Omit<TestLedger, 'close'>) {
  await bring(
    ledger,
    'name,registered,expires,price paid,bought on\nfoghornmill.com,2019-11-06T23:15:00Z,2027-01-05,640,2026-03-31',
  );
  await bring(ledger, 'name,expires,auto-renew,notes\nfoghornmill.com,2028-03-26T00:30:00Z,on,told by telephone');
  const { rows } = await ledger.database.query('select max(id) as id from batches');
  const shown = async () => [
    await nameOn(ledger, 'foghornmill.com', new URLSearchParams()),
    await nameDetail(ledger, 'foghornmill.com'),
  ];
  const before = await shown();
  await undo(ledger, rows[0].id);
  const saved: Record<string, string> = {};
  for await (const state of readLedger(ledger.database))
    for await (const { table, lines } of state.tables()) {
      let text = '';
      for await (const piece of lines) text += piece.toString();
      if (SAVED.includes(table)) saved[table] = text;
    }
  const written = await exportCsv(ledger, new URLSearchParams());
  return JSON.parse(JSON.stringify({ before, after: await shown(), saved, written }));
}

test('instants and days are what they are on a server that counts and writes them otherwise', async () => {
  const usual = await ledgerIn('und', { timezone: 'UTC', datestyle: 'ISO', intervalstyle: 'postgres' });
  const elsewhere = await ledgerIn('da', { timezone: 'Asia/Kolkata', datestyle: 'German', intervalstyle: 'iso_8601' });
  expect(await told(elsewhere)).toEqual(await told(usual));
});
