import { afterEach, describe, expect, test } from 'vitest';
import { askDns } from '@/connectors/records/dnsClient';
import { addDays, addYears, instant } from '@/core/time';
import { selectRecordHistory } from '@/database/records';
import { projectedLedger } from '@/usecases/names/ledger';
import { undo } from '@/usecases/names/undo';
import { checkNow, checkProgress, drainChecks, queueChecks } from '@/usecases/records/check';
import { differingNames, dismissDifferences, takeOver } from '@/usecases/records/compare';
import { pasteRecord, seenZone } from '@/usecases/records/records';
import { checkEveryDays, queueDueChecks } from '@/usecases/records/schedule';
import { lookUp, unwatchName, watches, watchNames } from '@/usecases/records/watch';
import { pointRecordsAt } from '../../practice/scenario/links';
import { letDaysPass } from '../../practice/world/days';
import type { Domain } from '../../practice/world/types';
import { TODAY } from './ledger';
import { type LinkedLedger, linkedLedger } from './practice';

const END = instant('2027-03-09T10:15:00Z');
const NAMES = ['copperbuoy.com', 'larchpilot.com', 'tidewick.com'] as const;

let made: LinkedLedger;
afterEach(() => made.close());
const begin = async (more: Partial<Domain> = {}, end = END) => {
  made = await linkedLedger(NAMES, end, { nameServers: ['ns1.quaymark.test'], ...more });
  await pointRecordsAt(made.ledger.database, made.practice.records);
  return made;
};
const domain = (name: string) => made.world.domains.get(name) as Domain;
const kinds = async () =>
  (await differingNames(made.ledger)).map(({ ascii, differences }) => [ascii, ...differences.map(({ kind }) => kind)]);
const checkAll = async () => {
  await queueChecks(made.ledger, NAMES);
  return drainChecks(made.ledger);
};

describe('checking', () => {
  test('registry and registrar are asked; an unchanged record adds no row', async () => {
    const { ledger } = await begin();
    expect(await checkAll()).toBe(3);
    expect(await checkProgress(ledger)).toMatchObject({ waiting: 0, problems: [], names: 3, asked: 3 });
    const [registrar, registry] = (await selectRecordHistory(ledger.database, NAMES[0]))
      .sort((a, b) => (a.source < b.source ? -1 : 1))
      .reverse();
    expect([registry?.source, registrar?.source].sort()).toEqual(['registrar', 'registry']);
    ledger.setClock(addDays(TODAY, 2));
    await checkAll();
    const history = await selectRecordHistory(ledger.database, NAMES[0]);
    expect(history).toHaveLength(2);
    expect(history.map(({ firstAt, lastAt }) => [firstAt, lastAt])).toEqual([
      [TODAY, addDays(TODAY, 2)],
      [TODAY, addDays(TODAY, 2)],
    ]);
    expect(await kinds()).toEqual([]);
  });

  test('differences are found, the most dangerous first; taken over with the record as evidence, and back by undo', async () => {
    const { ledger } = await begin({ lock: true });
    await ledger.database.query(
      "update names set lock = true, name_servers = '{ns1.quaymark.test}', holder = 'Harbour Office'",
    );
    Object.assign(domain('copperbuoy.com'), { lock: false, nameServers: ['ns9.parkwick.test'] });
    Object.assign(domain('larchpilot.com'), { registrar: 'wrackgate' });
    Object.assign(domain('tidewick.com'), { holder: 'Oda Fennimore' });
    await checkAll();
    expect(await kinds()).toEqual([
      ['larchpilot.com', 'not at that registrar'],
      ['tidewick.com', 'holder changed'],
      ['copperbuoy.com', 'unlocked', 'name servers'],
    ]);
    const nameId = made.ids.get('copperbuoy.com') ?? 0;
    const done = await takeOver(ledger, {
      differences: [
        { nameId, kind: 'unlocked' },
        { nameId, kind: 'name servers' },
      ],
    });
    expect(done).toMatchObject({ changed: 1, summary: 'Taken over from the registration record: one name' });
    expect((await kinds()).map(([name]) => name)).toEqual(['larchpilot.com', 'tidewick.com']);
    const { rows } = await ledger.database.query(
      "select evidence from changes where evidence like 'registration record%'",
    );
    expect(rows).toEqual([{ evidence: 'registration record of 2026-11-24, by the registry' }]);
    if (!('batchId' in done) || done.batchId === null) throw new Error('nothing was done');
    await undo(ledger, done.batchId);
    expect((await kinds()).map(([name]) => name)).toContain('copperbuoy.com');
  });

  test('what is dismissed stays away until the record says something else', async () => {
    const { ledger } = await begin();
    await ledger.database.query("update names set name_servers = '{ns1.harbour.test}'");
    await checkAll();
    const differences = [...made.ids.values()].map((nameId) => ({ nameId, kind: 'name servers' }));
    expect(await dismissDifferences(ledger, { differences })).toBe(3);
    expect(await kinds()).toEqual([]);
    domain('tidewick.com').nameServers = ['ns2.parkwick.test'];
    await checkAll();
    expect(await kinds()).toEqual([['tidewick.com', 'name servers']]);
  });

  test('the provisional year: undetermined by the registry alone, not renewed by the registrar’s word', async () => {
    const { ledger, world } = await begin({ auto: 'off' }, addDays(TODAY, -10));
    await ledger.database.query('update accounts set link_read_at = null, link_polled_at = null');
    await checkAll();
    const [first] = await differingNames(ledger);
    expect(first?.differences[0]).toMatchObject({ kind: 'term end', term: { kind: 'not renewed', by: 'registrar' } });
    expect(world.domains.get(NAMES[0])?.paidThrough).toBe(addDays(TODAY, -10));
    // Nothing is taken over on the word of a year that nobody has paid for.
    expect(await takeOver(ledger, { differences: [{ nameId: first?.nameId ?? 0, kind: 'term end' }] })).toMatchObject({
      code: 'nothing-to-take-over',
    });
  });

  test('renewed where nobody here ordered it: the term goes on, no second charge is forecast, the cost is a proposal', async () => {
    const { ledger } = await begin({}, addDays(TODAY, 12));
    const outlook = async () => {
      const projection = await projectedLedger(ledger);
      return projection.names
        .all()
        .flatMap((_, place) => projection.charges.of(place))
        .filter(({ at }) => at < addDays(TODAY, 200)).length;
    };
    expect(await outlook()).toBe(3);
    // The registrar has charged for a year by itself, and its message was lost.
    domain('tidewick.com').paidThrough = addYears(addDays(TODAY, 12), 1);
    await checkAll();
    expect(await outlook()).toBe(2);
    expect(await kinds()).toEqual([]);
    const { rows } = await ledger.database.query('select minor, currency, note, batch_id from entries');
    expect(rows).toMatchObject([{ minor: 1138, currency: 'USD', note: expect.stringContaining('proposed') }]);
    // Taken back it stays taken back, and is shown as a difference.
    await undo(ledger, rows[0].batch_id);
    await checkAll();
    expect(await kinds()).toEqual([['tidewick.com', 'term end']]);
    expect(await outlook()).toBe(3);
  });

  test('renewed for several years: the term goes on, and what that has cost is not guessed', async () => {
    const { ledger } = await begin({}, addDays(TODAY, 12));
    domain('tidewick.com').paidThrough = addYears(addDays(TODAY, 12), 3);
    await checkAll();
    expect(await kinds()).toEqual([]);
    const { rows } = await ledger.database.query('select count(*) as n from entries');
    expect(rows).toEqual([{ n: 0 }]);
  });

  test('a name that has gone or is in redemption, though the ledger holds it for sure', async () => {
    await begin();
    made.world.domains.delete('copperbuoy.com');
    Object.assign(domain('larchpilot.com'), { state: 'redemption', since: TODAY, deletedAt: TODAY });
    await checkAll();
    expect(await kinds()).toEqual([
      ['copperbuoy.com', 'not registered'],
      ['larchpilot.com', 'in redemption'],
    ]);
  });

  test.each([
    ['garbage', NAMES[0]],
    ['cut', NAMES[0]],
    ['busy', NAMES[0]],
    ['slow', NAMES[0]],
    ['garbage', 'foghorn.uk'],
    ['cut', 'foghorn.uk'],
    ['busy', 'foghorn.uk'],
    ['slow', 'foghorn.uk'],
  ] as const)(
    '%s, asked for %s: told as a problem, tried again, and nothing overwritten',
    async (fault, name) => {
      const { ledger, practice, world } = await begin();
      world.domains.set('foghorn.uk', { ...domain('tidewick.com'), name: 'foghorn.uk', ending: 'uk' });
      await queueChecks(ledger, [name]);
      await drainChecks(ledger);
      const before = await selectRecordHistory(ledger.database, name);
      expect(before.length).toBeGreaterThan(0);
      practice.faults.set('records', fault, 1);
      await queueChecks(ledger, [name]);
      await drainChecks(ledger);
      const { waiting, problems } = await checkProgress(ledger);
      expect([waiting, problems.length]).toEqual([1, 1]);
      expect(await selectRecordHistory(ledger.database, name)).toEqual(before);
      ledger.setClock(addDays(TODAY, 1));
      await drainChecks(ledger);
      expect((await checkProgress(ledger)).waiting).toBe(0);
    },
    40_000,
  );

  test('near a deadline the checks are denser', async () => {
    const { ledger } = await begin();
    expect([3, 30, 200, null].map(checkEveryDays)).toEqual([1, 3, 14, 14]);
    expect(await queueDueChecks(ledger)).toBe(3);
    await drainChecks(ledger);
    expect(await queueDueChecks(ledger)).toBe(0);
  });
});

test('WHOIS: the registry refers to the registrar, whose own record is asked for too', async () => {
  made = await linkedLedger(['kelpforge.de'], END, { nameServers: ['ns1.quaymark.test'] });
  await pointRecordsAt(made.ledger.database, made.practice.records);
  expect(await checkNow(made.ledger, 'kelpforge.de')).toBeNull();
  const history = await selectRecordHistory(made.ledger.database, 'kelpforge.de');
  expect(history.map(({ source, record }) => [source, record.protocol, record.registrar]).sort()).toEqual([
    ['registrar', 'whois', 'Quaymark Names BV'],
    ['registry', 'whois', 'Quaymark Names BV'],
  ]);
  expect(history.find(({ source }) => source === 'registry')?.record.referral).toMatch(/^127\.0\.0\.1:\d+$/);
  expect(history.find(({ source }) => source === 'registrar')?.record.holder?.name).toBe('Harbour Office');
});

test('a signed name whose zone shows another key than the registry vouches for is broken, though its record is as before', async () => {
  const { ledger, world } = await begin();
  world.signed.set('tidewick.com', 'stands');
  await checkAll();
  expect(await kinds()).toEqual([]);
  world.signed.set('tidewick.com', 'broken');
  await checkAll();
  expect(await kinds()).toEqual([['tidewick.com', 'security broken']]);
  world.signed.set('tidewick.com', 'stands');
  await checkNow(ledger, 'tidewick.com');
  expect(await kinds()).toEqual([]);
});

describe('names of others', () => {
  test('looked up: taken, by whom and until when; free is told as free', async () => {
    const { ledger, world } = await begin();
    world.domains.set('ketterby.com', {
      ...domain('tidewick.com'),
      name: 'ketterby.com',
      owner: 'stranger',
      holder: 'Ketterby Boatyard',
      registrar: 'wrackgate',
    });
    expect(await lookUp(ledger, 'https://www.ketterby.com/')).toMatchObject({
      ascii: 'ketterby.com',
      record: { found: true, registrar: 'Wrackgate Registry Services', abuseMail: 'abuse@wrackgate.test' },
      registrarRecord: { holder: { name: 'Ketterby Boatyard', redacted: false } },
      release: { free: false, ifNotRenewed: true },
      problem: null,
    });
    expect(await lookUp(ledger, 'nobody-has-this.com')).toMatchObject({
      record: { found: false },
      release: { free: true },
    });
    expect(await lookUp(ledger, 'kelp.zz-none')).toMatchObject({ kind: 'refusal' });
  });

  test('watched to its release: the range narrows, and every change is told', async () => {
    const { ledger, world } = await begin();
    const end = addDays(TODAY, -40);
    world.domains.set('ketterby.com', {
      ...domain('tidewick.com'),
      name: 'ketterby.com',
      owner: 'stranger',
      holder: 'Ketterby Boatyard',
      auto: 'off',
      attemptAt: null,
      paidThrough: end,
      toldEnd: end,
    });
    expect(await watchNames(ledger, { names: ['ketterby.com'] })).toBe(1);
    expect(await watchNames(ledger, { names: ['ketterby.com', 'no name'] })).toMatchObject({ kind: 'refusal' });
    const widths: number[] = [];
    let free = 0;
    for (let day = 0; day <= 44; day += 1) {
      await letDaysPass(world, addDays(TODAY, day) + 1);
      ledger.setClock(addDays(TODAY, day));
      await checkNow(ledger, 'ketterby.com');
      const [watch] = await watches(ledger);
      if (watch?.isFree && free === 0) free = day;
      if (!watch?.isFree && watch?.earliest && watch.latest) {
        widths.push((watch.latest - watch.earliest) / 86_400_000);
        expect(watch.latest).toBeGreaterThanOrEqual(addDays(TODAY, 40) - 86_400_000);
      }
    }
    // Deleted 45 days after the end, 30 days of redemption, 5 of deletion: free on the 80th, 40 days from today.
    expect(free).toBe(40);
    expect(widths[0]).toBeGreaterThan(30);
    expect(widths.at(-1)).toBeLessThanOrEqual(1.01);
    expect((await watches(ledger))[0]).toMatchObject({
      standing: 'available',
      change: 'pending delete at Quaymark Names BV → available',
    });
    await unwatchName(ledger, 'ketterby.com');
    expect(await watches(ledger)).toEqual([]);
  });
});

test('a record that is pasted is read the same way; what is none is refused', async () => {
  const { ledger } = await begin();
  expect(
    await pasteRecord(ledger, {
      name: 'copperbuoy.com',
      text: 'Domain Name: COPPERBUOY.COM\nRegistry Expiry Date: 2028-03-09T10:15:00Z\nRegistrar: Quaymark Names BV',
    }),
  ).toBe('copperbuoy.com');
  expect(await kinds()).toEqual([['copperbuoy.com', 'term end']]);
  expect(await pasteRecord(ledger, { name: 'copperbuoy.com', text: '{"objectClassName":"entity"}' })).toMatchObject({
    code: 'record-unreadable',
  });
});

test('what hangs on a name, as a zone file; DNS over TCP when UDP cuts it short', async () => {
  const { ledger, world, practice } = await begin();
  world.texts.set(
    'tidewick.com',
    Array.from({ length: 12 }, (_, i) => `proof-${i}-${'x'.repeat(60)}`),
  );
  const seen = await seenZone(ledger, 'tidewick.com');
  if (!('text' in seen)) throw new Error(seen.message);
  // One line for each record, under the origin.
  expect(seen.text.trimEnd().split('\n')).toHaveLength(seen.zone.records.length + 1);
  expect(seen.text).toMatch(/^\$ORIGIN tidewick\.com\.\n/);
  expect(seen.zone.records.filter(({ type }) => type === 'TXT')).toHaveLength(12);
  expect(seen.zone.records.map(({ name, type }) => `${name} ${type}`)).toEqual(
    expect.arrayContaining(['@ NS', '@ A', 'www A']),
  );
  const nothing = await askDns({ host: '127.0.0.1', port: practice.records.dns }, 'no-such-name.com', 'A');
  expect(nothing.answers).toEqual([]);
});
