import { afterEach, describe, expect, test } from 'vitest';
import { addDays, addYears, instant } from '@/core/time';
import { countTransfersWaiting } from '@/database/transfers';
import { pollEveryAccount } from '@/usecases/links/poll';
import { agreeToPrice, noteCounterOffer, stayAfterAll, tellTransfer } from '@/usecases/moving/byHand';
import { carryOnTransfers } from '@/usecases/moving/carryOn';
import { transfersUnderWay } from '@/usecases/moving/underWay';
import { bringZone, zonesOfTransfer } from '@/usecases/moving/zones';
import { undo } from '@/usecases/names/undo';
import { pointRecordsAt } from '../../practice/scenario/links';
import { confirmMail } from '../../practice/world/days';
import type { Customer, Domain } from '../../practice/world/types';
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
const stage = () => made.stages();
const row = (columns: string) => made.row(columns);
const entries = () => made.entries();
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

test('what differs after a transfer stays said while the mail is to be confirmed, and when it is over', async () => {
  const { ledger } = await begin();
  await onceMore();
  await ledger.database.query("update transfers set problem = 'Its name servers differ.'");
  await ledger.database.query("update names set confirm_mail_by = '2027-01-09T00:00:00Z'");
  await carryOnTransfers(ledger);
  const [open] = await transfersUnderWay(ledger);
  expect(open).toMatchObject({ stage: 'looked after', problem: 'Its name servers differ.' });
  expect(open?.confirmMailBy).not.toBeNull();
  await ledger.database.query('update names set confirm_mail_by = null');
  ledger.setClock(addDays(ledger.clock(), 2));
  await onceMore();
  expect((await made.transfers())[0]).toMatchObject({ stage: 'closed', problem: 'Its name servers differ.' });
});

test('a zone that cannot be looked at afterwards is not taken for one that is the same', async () => {
  const { ledger } = await begin();
  await ledger.database.query("update transfers set zone = '@ 3600 IN A 192.0.2.1', zone_note = 'brought'");
  await onceMore();
  expect(await stage()).toEqual(['looked after']);
  expect((await made.transfers())[0]?.problem).toContain('could not be looked at since');
});

test('auto-renew that nobody knew of before is on after it came to nothing: the name must not lapse', async () => {
  const { ledger } = await begin();
  await ledger.database.query("update names set setting = 'unknown'");
  await carryOnTransfers(ledger);
  const [first] = await made.transfers();
  expect(first?.before.setting).toBe('unknown');
  await ledger.database.query("update transfers set stage = 'going back', exit = 'stopped'");
  await carryOnTransfers(ledger);
  expect(await stage()).toEqual(['given up (stopped)']);
  expect(domain().auto).toBe('on');
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

async function byHand(what: string, more: object = {}) {
  await onceMore();
  const [first] = await made.transfers();
  return tellTransfer(made.ledger, { id: first?.id, what, ...more });
}
