import { afterEach, beforeEach, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { heldAccounts } from '@/usecases/accounts/accounts';
import { importAtOnce } from '@/usecases/imports/importAtOnce';
import { emptyLedger, type TestLedger } from './ledger';

let ledger: TestLedger;
beforeEach(async () => {
  ledger = await emptyLedger();
});
afterEach(() => ledger.close());

async function bring(...lines: readonly string[]): Promise<void> {
  const written = await importAtOnce(ledger, {
    content: Buffer.from(lines.join('\n')),
    account: null,
    dateOrder: null,
    fullList: false,
    allowPrivateEndings: false,
    dryRun: false,
  });
  if (isRefusal(written)) throw new Error(written.message);
}

/** What each account charges for an ending, and for single names, as it was learnt. */
async function learnt(): Promise<string[]> {
  const { rows } = await ledger.database.query<{ said: string }>(
    `select concat_ws(' ', a.label, '.' || p.ending, n.ascii, p.year_minor, p.currency) as said
     from prices p join accounts a on a.id = p.account_id left join names n on n.id = p.name_id`,
  );
  return rows.map(({ said }) => said).sort();
}

test('an account that a list writes in several ways is one, as it is written first, and its prices are counted together', async () => {
  await bring(
    'name,account,renewal price,currency',
    'reedcutter.com,zander yard,9.00,EUR',
    'saltwharf.com,Zander Yard,12.00,EUR',
    'gorsebank.com,ZANDER YARD,12.00,EUR',
    'oakumloft.com,zander yard,9.00,EUR',
    'tidetable.com,zAnDeR yArD,12.00,EUR',
  );
  expect((await heldAccounts(ledger)).map(({ label, names }) => [label, names])).toEqual([['zander yard', 5]]);
  expect(await learnt()).toEqual([
    'zander yard .com 1200 EUR',
    'zander yard .com oakumloft.com 900 EUR',
    'zander yard .com reedcutter.com 900 EUR',
  ]);
});

test('a list without accounts teaches what each name’s own account charges', async () => {
  await bring(
    'name,account',
    'reedcutter.com,Quaymark',
    'saltwharf.com,Quaymark',
    'gorsebank.com,Larkhythe',
    'oakumloft.net,Larkhythe',
  );
  await bring(
    'name,renewal price,currency',
    'reedcutter.com,11.38,USD',
    'saltwharf.com,11.38,USD',
    'gorsebank.com,9.50,EUR',
    'oakumloft.net,10.00,EUR',
    'tidetable.com,14.00,EUR',
  );
  expect(await learnt()).toEqual([
    'Larkhythe .com 950 EUR',
    'Larkhythe .net 1000 EUR',
    'No account yet .com 1400 EUR',
    'Quaymark .com 1138 USD',
  ]);
});

test('where some rows name their account and others do not, both are counted for the account that has the name', async () => {
  await bring('name,account', 'reedcutter.com,Quaymark', 'saltwharf.com,Quaymark');
  await bring(
    'name,account,renewal price,currency',
    'reedcutter.com,,11.38,USD',
    'saltwharf.com,,11.38,USD',
    'gorsebank.com,quaymark,15.00,USD',
  );
  expect(await learnt()).toEqual(['Quaymark .com 1138 USD', 'Quaymark .com gorsebank.com 1500 USD']);
});

test('a name that another account has teaches nothing until it is said that it moved', async () => {
  await bring('name,account', 'reedcutter.com,Quaymark');
  await bring('name,account,renewal price,currency', 'reedcutter.com,Larkhythe,9.50,EUR');
  expect(await learnt()).toEqual([]);
});

test('an account is counted by the names it still has; one that has none is there with none', async () => {
  await bring('name,account', 'reedcutter.com,Quaymark', 'saltwharf.com,Quaymark', 'gorsebank.com,Larkhythe');
  await ledger.database.query("update names set gone_at = now() where ascii in ('saltwharf.com', 'gorsebank.com')");
  expect((await heldAccounts(ledger)).map(({ label, names }) => [label, names])).toEqual([
    ['Larkhythe', 0],
    ['Quaymark', 1],
  ]);
});
