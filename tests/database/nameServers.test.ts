import { afterEach, expect, test } from 'vitest';
import { instant } from '@/core/time';
import { removeLink } from '@/usecases/links/links';
import { changeNameServers } from '@/usecases/links/nameServers';
import { undo } from '@/usecases/names/undo';
import { checkNow } from '@/usecases/records/check';
import { pointRecordsAt } from '../../practice/scenario/links';
import { type LinkedLedger, linkedLedger } from './practice';

const NAMES = ['copperbuoy.com', 'larchpilot.com'] as const;
const END = instant('2027-06-09T10:15:00Z');
const HOSTS = 'ns1.elsewhere.test\nns2.elsewhere.test';

let made: LinkedLedger;
afterEach(() => made.close());
const begin = async () => {
  made = await linkedLedger(NAMES, END, { nameServers: ['ns1.quaymark.test', 'ns1.elsewhere.test'] });
  // Whether they are signed is seen at the name server that is set.
  await pointRecordsAt(made.ledger.database, made.practice.records);
  return made.ledger;
};
const change = (more: object = {}) =>
  changeNameServers(made.ledger, {
    nameIds: [...made.ids.values()],
    hosts: HOSTS,
    byHand: false,
    evenIfSigned: false,
    ...more,
  });
const serversOf = (name: string) => [...(made.world.domains.get(name)?.nameServers ?? [])].sort();

test('over a link they are set, whatever they were; done again it changes nothing more, and undo takes the ledger back', async () => {
  const ledger = await begin();
  const done = await change();
  expect(done).toMatchObject({ changed: 2, problems: [], summary: 'Set the name servers of 2 names' });
  expect(NAMES.map(serversOf)).toEqual([HOSTS.split('\n'), HOSTS.split('\n')]);
  expect(await change()).toMatchObject({ changed: 0, problems: [] });
  await undo(ledger, (done as { batchId: number }).batchId);
  const { rows } = await ledger.database.query('select name_servers as hosts from names');
  expect(rows).toEqual([{ hosts: [] }, { hosts: [] }]);
});

test('a registrar that does not answer leaves what it did not do, and says so for each name', async () => {
  await begin();
  made.practice.faults.set('quaymark', 'busy', 1);
  expect(await change()).toMatchObject({ changed: 1, problems: [{ problem: 'the registrar did not answer' }] });
});

test('without a link nothing is believed until a person says that it is done', async () => {
  const ledger = await begin();
  await removeLink(ledger, made.accountId);
  expect(await change()).toMatchObject({ changed: 0, problems: [{}, {}] });
  expect(await change({ byHand: true })).toMatchObject({ changed: 2, problems: [] });
});

test('a signed zone is not broken: it is refused, unless its keys stay', async () => {
  const ledger = await begin();
  made.world.signed.set(NAMES[0], 'stands');
  await checkNow(ledger, NAMES[0]);
  expect(await change()).toMatchObject({ code: 'zone-signed' });
  expect(serversOf(NAMES[0])).toContain('ns1.quaymark.test');
  expect(await change({ evenIfSigned: true })).toMatchObject({ changed: 2 });
});

test('nobody has looked at it: the delegation is; where that cannot be seen, the name is left out and says so', async () => {
  const ledger = await begin();
  made.world.signed.set(NAMES[0], 'stands');
  expect(await change()).toMatchObject({ code: 'zone-signed' });
  await ledger.database.query("update settings set value = value - 'dns' where key = 'records'");
  expect(await change()).toMatchObject({
    changed: 0,
    problems: [{ problem: expect.stringContaining('whether it is signed is not known') }, {}],
  });
  expect(serversOf(NAMES[0])).toContain('ns1.quaymark.test');
  expect(await change({ evenIfSigned: true })).toMatchObject({ changed: 2 });
});

test('what is no name server goes nowhere', async () => {
  await begin();
  expect(await change({ hosts: 'ns1.elsewhere.test' })).toMatchObject({ code: 'hosts-count', field: 'hosts' });
  expect(await change({ hosts: 'ns1.elsewhere.test <script>' })).toMatchObject({ code: 'host-invalid' });
});
