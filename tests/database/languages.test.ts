import { expect, inject, onTestFinished, test } from 'vitest';
import { mergeColumns, NameTable } from '@/core/ledger';
import { selectLedgerColumns } from '@/database/ledgerColumns';
import { migrate } from '@/database/migrate';
import { importAtOnce } from '@/usecases/imports/importAtOnce';
import { ledgerOn } from './ledger';
import { databaseAt, runAdmin } from './postgres';

/** Each server orders texts as its language does, unless it is told: Unicode Technical Standard 35, part 5, and CLDR's rules of Danish and Czech. */
const LANGUAGES = [
  { language: 'da', behind: ['mzurf.com', 'maarsk-buoy.com'] },
  { language: 'cs', behind: ['hzest.com', 'chalkmoor.com'] },
  { language: 'en-u-ka-shifted', behind: ['tidea.com', 'tide-b.com'] },
];

async function ledgerIn(language: string) {
  const admin = inject('postgresUrl');
  const name = `ledger_${process.pid}_in_${language.replaceAll('-', '_')}`;
  await runAdmin(admin, `drop database if exists ${name}`);
  await runAdmin(
    admin,
    `create database ${name} template template0 encoding 'UTF8' locale 'C.UTF-8' locale_provider icu icu_locale '${language}'`,
  );
  const url = databaseAt(admin, name);
  await migrate(url);
  const ledger = ledgerOn(url);
  onTestFinished(async () => {
    await ledger.database.end();
    await runAdmin(admin, `drop database ${name} with (force)`);
  });
  return ledger;
}

test.each(LANGUAGES)(
  'names stand letter by letter, whatever changes, on a server that orders texts as $language does',
  async ({ language, behind }) => {
    const ledger = await ledgerIn(language);
    const names = [...behind, 'gullreef.com', 'mabrig.com', 'oysterlamp.com', 'tidec.com', 'wickhaven.com'];
    const { rows } = await ledger.database.query('select w from unnest($1::text[]) w order by w', [behind]);
    expect(rows.map(({ w }) => w)).toEqual(behind);
    await importAtOnce(ledger, {
      content: Buffer.from(`name,notes\n${names.map((name) => `${name},from the first list`).join('\n')}`),
      account: 'Lantern',
      dateOrder: null,
      fullList: false,
      allowPrivateEndings: false,
      dryRun: false,
    });
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
