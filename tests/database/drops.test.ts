import { afterEach, describe, expect, test } from 'vitest';
import { addDays, instant } from '@/core/time';
import { pollAccount } from '@/usecases/links/poll';
import { carryOutSwitches } from '@/usecases/links/switches';
import { nameOn } from '@/usecases/names/one';
import { decideRescue, saveSaleOdds } from '@/usecases/rescue/decide';
import { dropNames, dropping, hangingOn, keepAfterAll, keptZone } from '@/usecases/rescue/drop';
import { lapseOf } from '@/usecases/rescue/lapse';
import { refundName } from '@/usecases/rescue/refund';
import { pointRecordsAt } from '../../practice/scenario/links';
import { letDaysPass } from '../../practice/world/days';
import type { Domain } from '../../practice/world/types';
import { TODAY } from './ledger';
import { type LinkedLedger, linkedLedger } from './practice';

const NAMES = ['copperbuoy.com', 'larchpilot.com'] as const;
const HOUR = 3_600_000;
const DAY = 24 * HOUR;

let made: LinkedLedger;
afterEach(() => made.close());
const standing = async () =>
  (
    await made.ledger.database.query(
      'select ascii, purpose, setting, requested, gone_at is not null as gone from names order by ascii',
    )
  ).rows;
const ids = () => [...made.ids.values()];
const domain = (name: string) => made.world.domains.get(name) as Domain;

describe('dropping', () => {
  test('auto-renew goes off at the registrar, nobody nags, and the way back leads to what it was before', async () => {
    made = await linkedLedger(NAMES, instant('2027-03-09T10:15:00Z'));
    const { ledger } = made;
    await ledger.database.query("update names set purpose = 'for sale', asking_minor = 90000, asking_currency = 'USD'");
    const done = await dropNames(ledger, {
      nameIds: ids(),
      reason: 'Never found a buyer',
      zone: '$ORIGIN copperbuoy.com.\n@ 3600 IN NS ns1.quaymark.test.\n',
      checked: ['Mail is read elsewhere'],
    });
    expect(done).toMatchObject({ changed: 2, summary: 'Dropped 2 names: Never found a buyer' });
    expect(await standing()).toMatchObject([
      { purpose: 'drop', setting: 'on', requested: 'off' },
      { purpose: 'drop', setting: 'on', requested: 'off' },
    ]);
    await carryOutSwitches(ledger);
    expect(domain('copperbuoy.com').auto).toBe('off');
    expect(await dropping(ledger)).toMatchObject([
      { ascii: 'copperbuoy.com', reason: 'Never found a buyer', setting: 'off', requested: null, hasZone: true },
      { ascii: 'larchpilot.com' },
    ]);
    expect(await keptZone(ledger, ids()[0] ?? 0)).toContain('$ORIGIN copperbuoy.com.');
    expect(await keepAfterAll(ledger, { nameIds: ids() })).toMatchObject({ changed: 2 });
    await carryOutSwitches(ledger);
    expect(await standing()).toMatchObject([
      { purpose: 'for sale', setting: 'on', requested: null },
      { purpose: 'for sale', setting: 'on', requested: null },
    ]);
    expect(domain('larchpilot.com').auto).toBe('on');
    expect(await dropping(ledger)).toEqual([]);
  });

  test('a registrar that takes its time: asked and pending until it has confirmed, and not asked again meanwhile', async () => {
    made = await linkedLedger(NAMES, instant('2027-03-09T10:15:00Z'), {}, 'bollard');
    const { ledger, world, accountId } = made;
    await dropNames(ledger, { nameIds: ids(), reason: 'The idea is given up' });
    expect(await carryOutSwitches(ledger)).toEqual({ confirmed: 0, problems: [] });
    const [first] = await dropping(ledger);
    expect(first).toMatchObject({ setting: 'on', requested: 'off', pendingSince: ledger.clock() });
    const { offAt } = domain('copperbuoy.com');
    expect(offAt).toBe(world.now + 48 * HOUR);
    await carryOutSwitches(ledger);
    expect(domain('copperbuoy.com').offAt).toBe(offAt);
    await letDaysPass(world, world.now + 3 * DAY);
    await pollAccount(ledger, accountId);
    expect((await dropping(ledger))[0]).toMatchObject({ setting: 'off', requested: null, pendingSince: null });
  });

  test('released in the end: out of the working views, and still in the books', async () => {
    const end = addDays(TODAY, -40);
    made = await linkedLedger(NAMES, end);
    const { ledger, world, accountId } = made;
    await dropNames(ledger, { nameIds: ids(), reason: 'Costs more than it brings' });
    await carryOutSwitches(ledger);
    await letDaysPass(world, world.now + 60 * DAY);
    await pollAccount(ledger, accountId);
    expect(await standing()).toMatchObject([{ gone: true }, { gone: true }]);
    expect(await dropping(ledger)).toEqual([]);
    const { rows } = await ledger.database.query('select count(*) as n from drops where released_at is not null');
    expect(rows).toEqual([{ n: 2 }]);
  });

  test('a reason is wanted; what hangs on a name is told', async () => {
    made = await linkedLedger(NAMES, instant('2027-03-09T10:15:00Z'));
    await made.ledger.database.query("update names set name_servers = '{ns1.quaymark.test}'");
    await made.plan([NAMES[0]]);
    expect(await dropNames(made.ledger, { nameIds: ids(), reason: '' })).toMatchObject({ field: 'reason' });
    expect(await hangingOn(made.ledger, ids())).toMatchObject([
      { nameServers: ['ns1.quaymark.test'], runs: 1, live: null },
      { nameServers: ['ns1.quaymark.test'], runs: 0, live: null },
    ]);
    // With a name server to ask, what is live is told as well.
    for (const one of made.world.domains.values()) one.nameServers = ['ns1.quaymark.test'];
    await pointRecordsAt(made.ledger.database, made.practice.records);
    expect(await hangingOn(made.ledger, ids())).toMatchObject([
      { live: { site: ['192.0.2.15'], mail: ['mail.copperbuoy.com'] } },
      { live: { site: ['192.0.2.15'], mail: ['mail.larchpilot.com'] } },
    ]);
  });
});

test('a decision is remembered for the term it was made in', async () => {
  made = await linkedLedger(NAMES, addDays(TODAY, -10));
  const { ledger } = made;
  const decided = async () =>
    (
      await ledger.database.query(
        'select rescue_verdict as v, rescue_for = term_end as now, sale_chance as c from names order by ascii',
      )
    ).rows;
  await decideRescue(ledger, { nameIds: ids(), verdict: 'keep', chance: 0.25 });
  expect(await decided()).toEqual([
    { v: 'keep', now: true, c: 0.25 },
    { v: 'keep', now: true, c: 0.25 },
  ]);
  await decideRescue(ledger, { nameIds: ids(), verdict: 'as computed', usualChance: true });
  expect(await decided()).toEqual([
    { v: null, now: null, c: null },
    { v: null, now: null, c: null },
  ]);
  await decideRescue(ledger, { nameIds: ids(), bestOffer: '1250.50', currency: 'USD' });
  const offers = async () =>
    (await ledger.database.query('select best_offer_minor as m, best_offer_currency as c from names order by ascii'))
      .rows;
  expect((await offers())[0]).toEqual({ m: 125_050, c: 'USD' });
  await decideRescue(ledger, { nameIds: ids(), noOffer: true });
  expect((await offers())[0]).toEqual({ m: null, c: null });
  expect(await decideRescue(ledger, { nameIds: ids(), bestOffer: 'much', currency: 'USD' })).toMatchObject({
    field: 'bestOffer',
  });
  expect(await decideRescue(ledger, { nameIds: ids(), chance: 3 })).toMatchObject({ field: 'chance' });
  expect(await saveSaleOdds(ledger, { chance: 0.1, commission: 1.2 })).toMatchObject({ field: 'commission' });
  expect(await saveSaleOdds(ledger, { chance: 0.1, commission: 0.2 })).toBe(true);
});

describe('a fresh registration', () => {
  const fresh = async (days: number) => {
    made = await linkedLedger(NAMES, addDays(TODAY, 365 - days), { createdAt: TODAY - days * DAY });
    await made.ledger.database.query('update names set registered = $1', [new Date(TODAY - days * DAY)]);
    return ids()[0] ?? 0;
  };

  test('is refunded within five days: deleted, credited, booked', async () => {
    const nameId = await fresh(2);
    const before = made.world.customers.get('quaymark')?.balanceMinor ?? 0;
    expect(await refundName(made.ledger, { nameId })).toMatchObject({
      changed: 1,
      summary: 'Refunded: copperbuoy.com',
    });
    expect(made.world.domains.has('copperbuoy.com')).toBe(false);
    expect(made.world.customers.get('quaymark')?.balanceMinor).toBe(before + 1138);
    const { rows } = await made.ledger.database.query('select kind, minor from entries');
    expect(rows).toEqual([{ kind: 'refund', minor: 1138 }]);
    expect((await standing())[0]).toMatchObject({ gone: true });
  });

  test('is not refunded after that, and says until when it could be', async () => {
    const nameId = await fresh(8);
    expect(await refundName(made.ledger, { nameId })).toMatchObject({
      message: 'It could be deleted for a refund until 21 Nov 2026.',
    });
    expect(made.world.domains.has('copperbuoy.com')).toBe(true);
  });
});

test('how a name lapsed: warnings, failures and steps in order, with what each day would have cost', async () => {
  const end = addDays(TODAY, 3);
  made = await linkedLedger(NAMES, end);
  const { ledger, world, accountId } = made;
  const customer = world.customers.get('quaymark');
  if (customer) customer.balanceMinor = 0;
  await ledger.database.query(
    `insert into reminders (name_id, step_at, kind, stage, times, first_at, last_at, token)
     values ($1, $2, 'deadline', 3, 2, $3, $3, gen_random_uuid())`,
    [ids()[0], new Date(end), new Date(TODAY)],
  );
  const later = addDays(TODAY, 55);
  await letDaysPass(world, later);
  await pollAccount(ledger, accountId);
  const lapse = await lapseOf({ ...ledger, clock: () => later }, ids()[0] ?? 0);
  expect(lapse?.events.map(({ kind, text }) => [kind, text.split('.')[0]])).toEqual([
    ['warning', 'Reminded by mail (deadline) 2 times, last on 2026-11-24'],
    ['failure', 'The automatic charge failed: card ended 2026-10'],
    ['failure', 'The automatic charge failed: card ended 2026-10'],
    ['act', 'The term has ended and was not renewed'],
    ['step', 'The term ended'],
    ['failure', 'Deleted at the registry'],
    ['step', 'The late window (grace period) ended: deleted, a restore from here on'],
  ]);
  expect(lapse?.costs.map(({ by, cost }) => [by, cost?.minor ?? null])).toEqual([
    ['renewal', 1138],
    ['late renewal', 1138],
    ['restore', 12_518],
    ['nothing', null],
  ]);
  expect(await nameOn({ ...ledger, clock: () => later }, NAMES[0], new URLSearchParams())).toMatchObject({
    phase: 'redemption',
  });
  expect(await lapseOf(ledger, ids()[0] ?? 0)).toBeNull();
});
