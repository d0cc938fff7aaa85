import { afterEach, describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { addDays, addYears } from '@/core/time';
import { tellAddress } from '@/usecases/acquiring/addresses';
import { carryOnRegistrations } from '@/usecases/acquiring/carryOn';
import { reviewNames } from '@/usecases/acquiring/review';
import { wantNames } from '@/usecases/acquiring/wanted';
import { pollEveryAccount } from '@/usecases/links/poll';
import { editNames } from '@/usecases/names/edit';
import { undo } from '@/usecases/names/undo';
import { acquiringLedger, agreeTo, strangersHold } from './acquiring';
import { TODAY } from './ledger';
import type { LinkedLedger } from './practice';

let made: LinkedLedger;
afterEach(() => made.close());

const rows = async (sql: string) => (await made.ledger.database.query(sql)).rows;

async function agreed(names: readonly string[]): Promise<void> {
  const run = await agreeTo(made, names);
  if (isRefusal(run)) throw new Error(run.message);
}

describe('the review', () => {
  const review = async (...choices: Parameters<typeof reviewNames>[1][]) => {
    const found = await reviewNames(made.ledger, { choices });
    if (isRefusal(found)) throw new Error(found.message);
    return found;
  };

  test('a slip of the keys is caught before it is bought', async () => {
    made = await acquiringLedger();
    await wantNames(made.ledger, { names: [{ name: 'coperbuoy.net', typed: 'copperbuoy' }] });
    const { items } = await review({ ascii: 'coperbuoy.net' });
    expect(items[0]?.meant).toEqual([{ piece: 'coperbuoy', meant: 'copperbuoy' }]);
    expect(items[0]?.beside).toEqual([
      { text: 'cop', where: 'both' },
      { text: 'p', where: 'typed' },
      { text: 'erbuoy.net', where: 'both' },
    ]);
  });

  test('what is left of the balance, and the charge that would fail by it', async () => {
    made = await acquiringLedger();
    const { ledger, accountId } = made;
    await ledger.database.query(
      "update accounts set balance_minor = 1500; insert into payment_methods (account_id, position, kind, label) values ($1, 1, 'balance', 'balance')".replaceAll(
        '$1',
        String(accountId),
      ),
    );
    await wantNames(ledger, { names: [{ name: 'ternloft.com' }] });
    const { accounts, items, homeTotal } = await review({ ascii: 'ternloft.com' });
    expect(accounts).toMatchObject([
      {
        id: accountId,
        balance: { minor: 1500 },
        after: { minor: 362 },
        starved: { ascii: 'copperbuoy.com', cost: { minor: 1138 } },
      },
    ]);
    expect(homeTotal).toEqual({ minor: 1138, currency: 'USD' });
    expect(items).toMatchObject([
      { price: { by: 'link', total: { minor: 1138 } }, newEnd: addYears(TODAY, 1), confirmMailBy: addDays(TODAY, 15) },
    ]);
  });

  test.each([
    [1, 2],
    [3, 2],
    [4, 4],
  ])(
    'a term of %i years that its registry does not know is one of %i, and its end is that of the term',
    async (asked, years) => {
      made = await acquiringLedger();
      await made.ledger.database.query(
        `update policies set terms = jsonb_set(terms, '{register}', '{"least":2,"greatest":10,"step":2}') where ending = '*'`,
      );
      await wantNames(made.ledger, { names: [{ name: 'ternloft.com' }] });
      const { items } = await review({ ascii: 'ternloft.com', years: asked });
      expect(items[0]).toMatchObject({ years, terms: [2, 4, 6, 8, 10], newEnd: addYears(TODAY, years) });
    },
  );

  test('an address that is confirmed is known again in other letters', async () => {
    made = await acquiringLedger();
    const { ledger, accountId } = made;
    await ledger.database.query("update accounts set holder_mail = 'Names@Harbour-Office.test'");
    await ledger.database.query(
      "insert into holder_addresses (account_id, address, confirmed_at, evidence) values ($1, 'names@harbour-office.test', $2, 'seen')",
      [accountId, new Date(TODAY)],
    );
    await wantNames(ledger, { names: [{ name: 'ternloft.com' }] });
    expect((await review({ ascii: 'ternloft.com' })).items[0]).toMatchObject({ confirmMailBy: null });
  });

  test('what stands against a name is said where it stands', async () => {
    made = await acquiringLedger();
    strangersHold(made, 'wrackloft.com');
    await wantNames(made.ledger, {
      names: ['wrackloft.com', 'copperbuoy.com', 'ternloft.de'].map((name) => ({ name })),
    });
    const { items } = await review({ ascii: 'wrackloft.com' }, { ascii: 'copperbuoy.com' }, { ascii: 'ternloft.de' });
    expect(items.map(({ kind, problem }) => [kind, problem])).toEqual([
      ['taken', expect.stringContaining('does not sell it: In use')],
      ['ours', 'It is in the ledger already.'],
      ['unknown', 'No account is known to sell it.'],
    ]);
  });

  test('a price list that is out of date is told beside what is asked now', async () => {
    made = await acquiringLedger();
    await made.ledger.database.query("update prices set year_minor = 900 where action = 'register' and ending = 'com'");
    await wantNames(made.ledger, { names: [{ name: 'ternloft.com' }] });
    const { items } = await review({ ascii: 'ternloft.com' });
    expect(items[0]?.price).toMatchObject({ total: { minor: 1138 }, listed: { minor: 900 }, by: 'link' });
  });
});

test('an address that is confirmed at an account is not to be confirmed again', async () => {
  made = await acquiringLedger();
  const { ledger, accountId } = made;
  await ledger.database.query("update accounts set holder_mail = 'names@harbour-office.test', refunds = true");
  await agreed(['ternloft.com']);
  await carryOnRegistrations(ledger);
  const deadline = 'select confirm_mail_by as by from names where ascii = ';
  expect(await rows(`${deadline}'ternloft.com'`)).toEqual([{ by: addDays(TODAY, 15) }]);
  expect(await tellAddress(ledger, { accountId, address: 'names@harbour-office.test', came: 'sent again' })).toBe(true);
  expect(await tellAddress(ledger, { accountId, address: 'names@harbour-office.test', came: 'confirmed' })).toBe(true);
  // What hangs on it is confirmed with it.
  expect(await rows(`${deadline}'ternloft.com'`)).toEqual([{ by: null }]);
  await agreed(['wrackloft.com']);
  await carryOnRegistrations(ledger);
  expect(await rows(`${deadline}'wrackloft.com'`)).toEqual([{ by: null }]);
});

test.each(['confirmed', 'sent again'])('an address that no name was registered with is not %s', async (came) => {
  made = await acquiringLedger();
  const { ledger, accountId } = made;
  for (const told of [
    { accountId, address: 'nobody@harbour-office.test', came },
    { accountId: 9999, address: 'names@harbour-office.test', came },
  ])
    expect(await tellAddress(ledger, told)).toMatchObject({ code: 'address-unknown' });
  expect(await rows('select address from holder_addresses')).toEqual([]);
});

test('the registrar’s message that an address is confirmed is kept with it', async () => {
  made = await acquiringLedger();
  const { ledger, world } = made;
  await ledger.database.query("update accounts set holder_mail = 'names@harbour-office.test'");
  await agreed(['ternloft.com', 'wrackloft.com']);
  await carryOnRegistrations(ledger);
  world.messages.push({
    id: world.nextId++,
    registrar: 'quaymark',
    at: TODAY,
    kind: 'mail-confirmed',
    name: 'ternloft.com',
    text: 'confirmed',
    paidThrough: addYears(TODAY, 1),
    amountMinor: null,
    paymentMethod: null,
    until: null,
    pending: null,
    transfer: null,
  } as never);
  await pollEveryAccount(ledger);
  expect(
    await rows("select address, confirmed_at is not null as confirmed, evidence <> '' as shown from holder_addresses"),
  ).toEqual([{ address: 'names@harbour-office.test', confirmed: true, shown: true }]);
  // Both names hang on it.
  expect(await rows("select ascii from names where confirm_mail_by is not null and ascii like '%loft.com'")).toEqual(
    [],
  );
});

test('said of one name, it holds for every name on its address, and is taken back with it', async () => {
  made = await acquiringLedger();
  const { ledger } = made;
  await ledger.database.query("update accounts set holder_mail = 'names@harbour-office.test'");
  await agreed(['ternloft.com', 'wrackloft.com']);
  await carryOnRegistrations(ledger);
  await ledger.database.query("update accounts set holder_mail = 'other@harbour-office.test'");
  await agreed(['cairnloft.com']);
  await carryOnRegistrations(ledger);
  const waiting = () =>
    rows("select ascii from names where confirm_mail_by is not null and ascii like '%loft.com' order by ascii");
  const [tern] = await rows("select id from names where ascii = 'ternloft.com'");
  const done = await editNames(ledger, { nameIds: [tern?.id], edit: { mailConfirmed: true } });
  expect(done).toMatchObject({ changed: 2 });
  expect(await waiting()).toEqual([{ ascii: 'cairnloft.com' }]);
  if (!isRefusal(done)) await undo(ledger, done.batchId ?? 0);
  expect(await waiting()).toHaveLength(3);
});

test('a name that no registry takes any more never comes on the shortlist', async () => {
  made = await acquiringLedger();
  expect(await wantNames(made.ledger, { names: [{ name: 'i♥kelp.com' }] })).toMatchObject({
    code: 'letter-not-registrable',
  });
  expect(await wantNames(made.ledger, { names: [{ name: 'kelp kiln.com' }] })).toMatchObject({
    code: 'name-with-space',
  });
});
