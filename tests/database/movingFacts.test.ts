import { afterEach, expect, test } from 'vitest';
import { policyOf, rowsOn } from '@/core/ledger';
import { groundsAgainst, movingFacts } from '@/core/moving';
import { addDays, instant } from '@/core/time';
import { pollAccount } from '@/usecases/links/poll';
import { readAccount } from '@/usecases/links/readAccount';
import { editNames } from '@/usecases/names/edit';
import { projectedLedger } from '@/usecases/names/ledger';
import { undo } from '@/usecases/names/undo';
import { checkNow } from '@/usecases/records/check';
import { pasteRecord } from '@/usecases/records/records';
import { pointRecordsAt } from '../../practice/scenario/links';
import type { Domain } from '../../practice/world/types';
import { TODAY } from './ledger';
import { type LinkedLedger, linkedLedger } from './practice';

const NAME = 'copperbuoy.com';
const END = instant('2027-03-09T10:15:00Z');

let made: LinkedLedger;
afterEach(() => made.close());
const begin = async (more: Partial<Domain> = {}, end = END) => {
  made = await linkedLedger([NAME], end, { createdAt: TODAY - 4e10, ...more });
  await pointRecordsAt(made.ledger.database, made.practice.records);
  return made.ledger;
};
const nameId = () => made.ids.get(NAME) as number;

/** What stands against a transfer of the name, by the ledger. */
async function grounds(): Promise<string[]> {
  const projection = await projectedLedger(made.ledger);
  const { asOf } = projection;
  return groundsAgainst(movingFacts(rowsOn(projection, asOf)(0), policyOf(projection, 0)), asOf).map(
    ({ kind }) => kind,
  );
}

test('a look at the records says the last transfer and the statuses; the next look replaces these, not that', async () => {
  const ledger = await begin({ movedAt: TODAY - 9 * 86_400_000, lock: true });
  expect(await grounds()).not.toContain('transferred lately');
  await checkNow(ledger, NAME);
  expect(await grounds()).toEqual(expect.arrayContaining(['transferred lately', 'transfer lock']));
  Object.assign(made.world.domains.get(NAME) as Domain, { lock: false, movedAt: null });
  await checkNow(ledger, NAME);
  expect(await grounds()).toContain('transferred lately');
  expect(await grounds()).not.toContain('transfer lock');
});

test('a record that was pasted counts like one that was asked for', async () => {
  const ledger = await begin();
  const text = `Domain Name: ${NAME}\nRegistry Domain ID: 1\nRegistrar: Quaymark Names BV\nDomain Status: serverTransferProhibited\n`;
  expect(await pasteRecord(ledger, { name: NAME, text })).toBe(NAME);
  expect(await grounds()).toContain('registry lock');
});

test('the registrar’s own answer tells the last transfer too (RFC 5731 section 3.1.2, trDate)', async () => {
  const ledger = await begin({ movedAt: TODAY - 9 * 86_400_000 });
  await readAccount(ledger, 1);
  expect(await grounds()).toContain('transferred lately');
  const { rows } = await ledger.database.query('select transferred_evidence as evidence from names');
  expect(rows).toEqual([{ evidence: 'the registrar' }]);
});

test('entered by hand, with evidence, and back by undo; a waiver of the lock after a change of holder counts', async () => {
  const ledger = await begin();
  const edit = (more: object) => editNames(ledger, { nameIds: [nameId()], edit: more });
  const done = await edit({ transferredAt: '2026-11-01', evidence: 'mail of 2 November' });
  expect(await grounds()).toContain('transferred lately');
  const { rows } = await ledger.database.query('select transferred_evidence as evidence from names');
  expect(rows).toEqual([{ evidence: 'mail of 2 November' }]);
  await undo(ledger, (done as { batchId: number }).batchId);
  expect(await grounds()).not.toContain('transferred lately');
  await edit({ holderChangedAt: '2026-11-01' });
  expect(await grounds()).toContain('holder changed lately');
  await edit({ holderLockWaived: true });
  expect(await grounds()).not.toContain('holder changed lately');
  expect(await edit({ transferredAt: '1970-01-01' })).toMatchObject({ field: 'transferredAt' });
});

test('an automatic charge is told of: a transfer would lose the year it paid for', async () => {
  const end = addDays(TODAY, 8);
  const ledger = await begin({ auto: 'on', attemptAt: addDays(TODAY, 3) }, end);
  await made.practice.passTo(addDays(TODAY, 5));
  ledger.setClock(addDays(TODAY, 5));
  await pollAccount(ledger, 1);
  expect(await grounds()).toContain('charge not settled');
});
