import { afterEach, describe, expect, test } from 'vitest';
import { addYears, instant } from '@/core/time';
import { countTransfersWaiting } from '@/database/transfers';
import { pollEveryAccount } from '@/usecases/links/poll';
import { takeArrival } from '@/usecases/moving/arrival';
import { agreeToPrice, codeOfTransfer, noteCounterOffer, stayAfterAll, tellTransfer } from '@/usecases/moving/byHand';
import { carryOnTransfers } from '@/usecases/moving/carryOn';
import { namesUnderWay, transfersUnderWay } from '@/usecases/moving/underWay';
import { bringZone, zonesOfTransfer } from '@/usecases/moving/zones';
import { undo } from '@/usecases/names/undo';
import { pointRecordsAt } from '../../practice/scenario/links';
import { confirmMail } from '../../practice/world/days';
import { blankDomain } from '../../practice/world/domain';
import { pushToOffice } from '../../practice/world/orders';
import type { Customer, Domain } from '../../practice/world/types';
import { TODAY } from './ledger';
import { type MovingLedger, type MovingOptions, movingLedger } from './moving';

const NAME = 'copperbuoy.com';
const END = instant('2027-06-09T10:15:00Z');

let made: MovingLedger;
afterEach(() => made.close());
const begin = async (more: Partial<MovingOptions> = {}, names: readonly string[] = [NAME]) => {
  made = await movingLedger(names, { end: END, ...more });
  return made;
};
const domain = (name = NAME) => made.world.domains.get(name) as Domain;
const stage = async () => (await made.transfers()).map((one) => `${one.stage}${one.exit ? ` (${one.exit})` : ''}`);
const row = async (columns: string) => (await made.ledger.database.query(`select ${columns} from names`)).rows[0];
const entries = async () =>
  (await made.ledger.database.query('select kind, minor from entries order by id')).rows.map(
    ({ kind, minor }) => `${kind} ${minor}`,
  );
const onceMore = () => carryOnTransfers(made.ledger);

describe('by link, at both sides', () => {
  test('one pass takes a name to its new account: approved early, paid once, as it was before', async () => {
    const { ledger, world, toId } = await begin();
    const before = world.customers.get('wrackgate')?.balanceMinor ?? 0;
    await onceMore();
    expect(await stage()).toEqual(['looked after']);
    const price = world.registrars.get('wrackgate')?.prices.com?.transfer ?? 0;
    expect(domain()).toMatchObject({
      registrar: 'wrackgate',
      paidThrough: addYears(END, 1),
      lock: true,
      auto: 'on',
      authInfo: '',
    });
    expect(await row('account_id, lock, setting, term_end as "termEnd", gone_at as gone')).toEqual({
      account_id: toId,
      lock: true,
      setting: 'on',
      termEnd: addYears(END, 1),
      gone: null,
    });
    expect(before - (world.customers.get('wrackgate')?.balanceMinor ?? 0)).toBe(price);
    expect(await entries()).toEqual([`transfer ${price}`]);
    // The last act of the office is not the program's; and what stands at the registrars is not taken back in the books.
    const { rows: batches } = await ledger.database.query<{ id: number; by: string }>(
      "select id, made_by as by from batches where kind = 'transfer'",
    );
    expect(new Set(batches.map(({ by }) => by))).toEqual(new Set(['program']));
    expect(await undo(ledger, batches[0]?.id ?? 0)).toMatchObject({ code: 'undo-transfer' });
    // What its old registrar tells of it afterwards takes nothing away.
    await pollEveryAccount(ledger);
    expect(await row('gone_at as gone, account_id')).toEqual({ gone: null, account_id: toId });
    // Its new registrar asks the holder to confirm the mail address: it is over once that is done.
    await made.pass(2);
    expect((await made.transfers())[0]).toMatchObject({ stage: 'looked after', confirmMailBy: expect.any(Number) });
    confirmMail(world, NAME);
    await made.pass(1);
    expect(await stage()).toEqual(['closed']);
    const { rows } = await ledger.database.query('select code_sealed as code from transfers');
    expect(rows).toEqual([{ code: null }]);
  });

  test('what was looked at before differs afterwards: the name servers are compared', async () => {
    await begin();
    made.practice.faults.set('quaymark', 'busy', 0);
    await made.ledger.database.query("update transfers set name_servers = '{ns1.elsewhere.test}'");
    await onceMore();
    expect((await made.transfers())[0]?.problem).toContain('Its name servers differ: ns1.elsewhere.test before');
  });

  test('the zone is copied before and compared after: what nobody loaded at the new servers is missed, record by record', async () => {
    const { ledger, practice } = await begin();
    await pointRecordsAt(ledger.database, practice.records);
    practice.faults.set('wrackgate', 'zone not loaded', 1);
    await onceMore();
    const [moved] = await made.transfers();
    expect(moved?.problem).toMatch(
      /Its name servers differ: .* none now\. Its zone differs from before: \d+ records missing\./,
    );
    const zones = await zonesOfTransfer(ledger, moved?.id ?? 0);
    expect(zones).toMatchObject({ isCompared: true, came: [] });
    expect((zones as { lost: readonly { type: string }[] }).lost.map(({ type }) => type)).toContain('NS');
  });

  test('a zone file of the old account is taken in, and compared with instead', async () => {
    const { ledger, practice } = await begin();
    await pointRecordsAt(ledger.database, practice.records);
    const [first] = await made.transfers();
    expect(await bringZone(ledger, first?.id ?? 0, '@ A (')).toMatchObject({ field: 'zone' });
    await ledger.database.query("update transfers set stage = 'zone copied'");
    expect(await bringZone(ledger, first?.id ?? 0, '$TTL 60\nshop A 192.0.2.77\n')).toBe(1);
    await onceMore();
    expect(await zonesOfTransfer(ledger, first?.id ?? 0)).toMatchObject({
      lost: [{ name: 'shop', data: '192.0.2.77' }],
    });
  });

  test('a name that is not to be moved yet waits, and says why', async () => {
    const { ledger } = await begin();
    await ledger.database.query("update names set transferred = now() - interval '5 days'");
    ledger.setClock(instant(new Date().toISOString()));
    await onceMore();
    expect(await stage()).toEqual(['planned']);
    expect((await made.transfers())[0]?.problem).toMatch(/^It waits: transferred lately until/);
  });
});

describe('ways out, and the way back', () => {
  test('the losing side rejects it: lock and auto-renew are as before, and the price comes back', async () => {
    const { world, practice } = await begin({ isLosingLinked: false });
    Object.assign(domain(), { lock: false, auto: 'off', authInfo: 'from-the-panel' });
    await byHand('auto-renew is off');
    await byHand('the lock is off');
    await byHand('the code', { code: 'from-the-panel' });
    practice.faults.set('wrackgate', 'transfer rejected', 1);
    const balance = world.customers.get('wrackgate')?.balanceMinor;
    await onceMore();
    expect(await stage()).toEqual(['pending']);
    await made.pass(2);
    expect(await stage()).toEqual(['going back (rejected)']);
    expect(await byHand('back as it was')).toBe(true);
    expect(await stage()).toEqual(['credit awaited (rejected)']);
    await onceMore();
    expect(await stage()).toEqual(['given up (rejected)']);
    expect(world.customers.get('wrackgate')?.balanceMinor).toBe(balance);
    const price = world.registrars.get('wrackgate')?.prices.com?.transfer;
    expect(await entries()).toEqual([`transfer ${price}`, `refund ${price}`]);
  });

  test('a wrong code ends it before anything is paid, and all is as before', async () => {
    const { world, practice } = await begin();
    practice.faults.set('wrackgate', 'code wrong', 1);
    await onceMore();
    await onceMore();
    expect(await stage()).toEqual(['given up (wrong code)']);
    expect(domain()).toMatchObject({ registrar: 'quaymark', lock: true, auto: 'on', authInfo: '' });
    expect(world.receipts).toEqual([]);
    expect(await row('setting, lock')).toEqual({ setting: 'on', lock: true });
  });

  test('a code that has lapsed meanwhile is refused before anything is paid', async () => {
    const { world } = await begin();
    (world.customers.get('wrackgate') as Customer).balanceMinor = 0;
    await onceMore();
    expect(await stage()).toEqual(['requested']);
    expect((await made.transfers())[0]?.problem).toMatch(/^Not paid: /);
    (world.customers.get('wrackgate') as Customer).balanceMinor = 100_000;
    await made.pass(15);
    await onceMore();
    expect(await stage()).toEqual(['given up (wrong code)']);
    expect(world.receipts).toEqual([]);
    expect(domain()).toMatchObject({ registrar: 'quaymark', lock: true, auto: 'on' });
  });

  test('too near to its next charge it goes back before anything is asked for', async () => {
    const { ledger } = await begin({ to: 'wrackgate' });
    (made.world.customers.get('wrackgate') as Customer).balanceMinor = 0;
    await ledger.database.query('update accounts set balance_minor = 0, switch_hours = 24 where id = $1', [made.toId]);
    await ledger.database.query(
      `insert into payment_methods (account_id, position, kind, label) values ($1, 1, 'balance', 'balance') on conflict do nothing`,
      [made.toId],
    );
    await onceMore();
    expect(await stage()).toEqual(['zone copied']);
    ledger.setClock(instant('2027-06-08T00:00:00Z'));
    await onceMore();
    expect(await stage()).toEqual(['given up (timed out)']);
  });

  test('what the new registrar asks beyond what was agreed to waits for a yes', async () => {
    const { ledger, world } = await begin();
    await ledger.database.query('update transfers set cap_minor = 5');
    await onceMore();
    const [waiting] = await made.transfers();
    expect(waiting).toMatchObject({ stage: 'code held', problem: 'The new registrar asks more than was agreed to.' });
    expect(world.receipts).toEqual([]);
    expect(await agreeToPrice(ledger, waiting?.id ?? 0, waiting?.askedMinor ?? 0)).toBe(true);
    await onceMore();
    expect(await stage()).toEqual(['looked after']);
  });
});

describe('the old registrar offers something for staying', () => {
  const pending = async () => {
    const { ledger, practice } = await begin();
    const [first] = await made.transfers();
    expect(await noteCounterOffer(ledger, first?.id ?? 0, { minor: 990 })).toBe(true);
    expect(await noteCounterOffer(ledger, first?.id ?? 0, { minor: -1 })).toMatchObject({ field: 'minor' });
    await onceMore();
    expect(await stage()).toEqual(['pending']);
    expect((await made.transfers())[0]?.problem).toContain('offer to stay is to be decided first');
    return { ledger, practice, id: first?.id ?? 0 };
  };

  test('nothing is approved before that is decided; declined, it moves', async () => {
    const { ledger, id } = await pending();
    expect(await noteCounterOffer(ledger, id, 'declined')).toBe(true);
    await onceMore();
    expect(await stage()).toEqual(['looked after']);
  });

  test('taken, the request is taken back, the name is as it was, and its price comes back', async () => {
    const { ledger, id } = await pending();
    expect(await stayAfterAll(ledger, id)).toBe(true);
    await pollEveryAccount(ledger);
    await onceMore();
    expect(await stage()).toEqual(['given up (cancelled)']);
    expect(domain()).toMatchObject({ registrar: 'quaymark', lock: true, auto: 'on', authInfo: '' });
    const price = made.world.registrars.get('wrackgate')?.prices.com?.transfer;
    expect(await entries()).toEqual([`transfer ${price}`, `refund ${price}`]);
  });
});

test('a registrar that wants the zone first gets no request before a person has loaded it there', async () => {
  const { ledger, ids } = await begin({}, [NAME, 'larchpilot.com']);
  await ledger.database.query('update accounts set wants_zone = true where id = $1', [made.toId]);
  await ledger.database.query("update names set name_servers = '{ns1.copperbuoy.com}' where ascii = 'larchpilot.com'");
  await onceMore();
  const shown = await transfersUnderWay(ledger);
  expect(shown.map(({ stage: at, turn }) => [at, turn])).toEqual([
    ['checked', 'you'],
    ['checked', 'you'],
  ]);
  // What lies under a name moves with it.
  expect(shown.find(({ nameId }) => nameId === ids.get(NAME))?.dependents).toEqual(['larchpilot.com']);
  expect(await countTransfersWaiting(ledger.database)).toBe(2);
  for (const { id } of shown) expect(await tellTransfer(ledger, { id, what: 'the zone is there' })).toBe(true);
  await onceMore();
  expect(await stage()).toEqual(['looked after', 'looked after']);
});

describe('by hand at both sides', () => {
  test('every step is taken down as it was done: the code sealed, the charge questioned, the end as it is shown', async () => {
    const { ledger, toId } = await begin({ isLosingLinked: false, isGainingLinked: false });
    const [first] = await made.transfers();
    const tell = (what: string, more: object = {}) => tellTransfer(ledger, { id: first?.id, what, ...more });
    await onceMore();
    // What the rail counts.
    expect(await countTransfersWaiting(ledger.database)).toBe(1);
    expect(await namesUnderWay(ledger)).toEqual([made.ids.get(NAME)]);
    expect(await tell('requested', { minor: 1138 })).toMatchObject({ code: 'stage-out-of-order' });
    expect(await tell('auto-renew is off')).toBe(true);
    expect(await tell('auto-renew is off')).toBe(true);
    expect(await tell('the lock is off')).toBe(true);
    expect(await tell('the code')).toMatchObject({ code: 'code-missing', field: 'code' });
    expect(await tell('the code', { code: 'from-the-panel' })).toBe(true);
    const { rows: sealed } = await ledger.database.query('select row_to_json(t)::text as row from transfers t');
    expect(sealed[0]?.row).not.toContain('from-the-panel');
    expect(await codeOfTransfer(ledger, first?.id ?? 0)).toBe('from-the-panel');
    expect(await tell('requested')).toMatchObject({ code: 'amount-missing', field: 'minor' });
    expect(await tell('requested', { minor: 1500 })).toMatchObject({ code: 'charge-differs', field: 'minor' });
    expect(await tell('requested', { minor: 1500, isAnother: true, note: 'R-77' })).toBe(true);
    expect(await tell('it has arrived', { end: '2028-06-08' })).toBe(true);
    expect(await row('account_id, term_end::date::text as end, setting, lock')).toEqual({
      account_id: toId,
      end: '2028-06-08',
      setting: 'unknown',
      lock: null,
    });
    expect(await codeOfTransfer(ledger, first?.id ?? 0)).toMatchObject({ code: 'code-gone' });
    expect(await tell('looked after')).toBe(true);
    await made.pass(2);
    expect(await stage()).toEqual(['closed']);
    expect(await entries()).toEqual(['transfer 1500']);
  });

  test('a code that the price list knows of: its sum is said, and not questioned', async () => {
    const { ledger, toId } = await begin({ isLosingLinked: false, isGainingLinked: false });
    await ledger.database.query(
      `update prices set first_year_minor = 900, first_year_condition = $2 where account_id = $1 and action = 'transfer'`,
      [toId, 'code SPRING'],
    );
    await ledger.database.query("update transfers set stage = 'code held', zone_note = 'seen'");
    const [shown] = await transfersUnderWay(ledger);
    expect(shown?.withCode).toMatchObject({ code: 'SPRING' });
    const minor = shown?.withCode?.minor ?? 0;
    expect(minor).toBeLessThan(shown?.capMinor ?? 0);
    const tell = (sum: number) => tellTransfer(ledger, { id: shown?.id, what: 'requested', minor: sum });
    expect(await tell(minor - 1)).toMatchObject({ code: 'charge-differs' });
    expect(await tell(minor)).toBe(true);
  });

  test('an end that nobody has told is worked out from the old one, and says so', async () => {
    const { ledger } = await begin({ isLosingLinked: false, isGainingLinked: false });
    await ledger.database.query("update transfers set stage = 'pending'");
    const [first] = await made.transfers();
    expect(await tellTransfer(ledger, { id: first?.id, what: 'it has arrived' })).toBe(true);
    const { rows } = await ledger.database.query("select evidence from changes where evidence like 'worked out%'");
    expect(rows).toHaveLength(1);
    expect((await row('term_end as end'))?.end).toBe(addYears(END, 1));
  });
});

describe('a name that came by push', () => {
  test('over the link: in the ledger with what was paid, looked after like every other', async () => {
    const { ledger, world } = await begin();
    const theirs = { ...blankDomain('larchpilot.com', 'wrackgate', TODAY - 4e10, END), owner: 'stranger' as const };
    world.domains.set(theirs.name, theirs);
    const arrived = { name: 'Larchpilot.com', accountId: made.toId, from: 'Oda Fennimore', minor: 48_000 };
    expect(await takeArrival(ledger, arrived)).toMatchObject({ code: 'not-arrived', field: 'name' });
    pushToOffice(world, theirs.name);
    expect(await takeArrival(ledger, arrived)).toBe('larchpilot.com');
    expect(await takeArrival(ledger, arrived)).toMatchObject({ code: 'name-known' });
    await onceMore();
    expect(world.domains.get(theirs.name)).toMatchObject({ lock: true, auto: 'on' });
    const { rows } = await ledger.database.query(
      "select account_id, setting, lock, term_end as end from names where ascii = 'larchpilot.com'",
    );
    expect(rows).toEqual([{ account_id: made.toId, setting: 'on', lock: true, end: END }]);
    expect(await entries()).toContain('bought 48000');
    const [shown] = (await transfersUnderWay(ledger)).filter(({ ascii }) => ascii === 'larchpilot.com');
    expect(shown).toMatchObject({ from: 'Oda Fennimore', stage: 'looked after' });
  });

  test('without a link: by what is told, and its end has to be', async () => {
    const { ledger } = await begin({ isGainingLinked: false });
    const arrived = { name: 'larchpilot.com', accountId: made.toId, from: 'Cordage Hall' };
    expect(await takeArrival(ledger, arrived)).toMatchObject({ field: 'end' });
    expect(await takeArrival(ledger, { ...arrived, end: '2027-03-01' })).toBe('larchpilot.com');
    await onceMore();
    const waiting = (await transfersUnderWay(ledger)).filter(({ ascii }) => ascii === 'larchpilot.com');
    expect(waiting).toMatchObject([{ stage: 'arrived', turn: 'you' }]);
  });
});

async function byHand(what: string, more: object = {}) {
  await onceMore();
  const [first] = await made.transfers();
  return tellTransfer(made.ledger, { id: first?.id, what, ...more });
}
