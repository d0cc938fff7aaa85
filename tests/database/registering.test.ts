import { afterEach, describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { addDays, addYears } from '@/core/time';
import { tellRegistration } from '@/usecases/acquiring/byHand';
import { carryOnRegistrations } from '@/usecases/acquiring/carryOn';
import { registerNames, registrationRun, registrations } from '@/usecases/acquiring/register';
import { shortlist } from '@/usecases/acquiring/wanted';
import { pollEveryAccount } from '@/usecases/links/poll';
import { carryOutSwitches } from '@/usecases/links/switches';
import type { FaultKind } from '../../practice/epp/faults';
import type { Customer } from '../../practice/world/types';
import { unregistered } from '../../practice/world/unregistered';
import { acquiringLedger, agreeTo } from './acquiring';
import { TODAY } from './ledger';
import type { LinkedLedger } from './practice';

let made: LinkedLedger;
afterEach(() => made.close());

const rows = async (sql: string) => (await made.ledger.database.query(sql)).rows;
const customer = () => made.world.customers.get('quaymark') as Customer;
const one = async () => (await registrations(made.ledger)).open[0] ?? (await registrations(made.ledger)).settled[0];

/** A name with a price of its own at its registry. */
const PREMIUM =
  Array.from({ length: 400 }, (_, i) => `kiln${i}loft.com`).find((name) => unregistered(name).own !== null) ?? '';

async function agreed(names: readonly string[], more: Parameters<typeof agreeTo>[2] = {}): Promise<string> {
  const run = await agreeTo(made, names, more);
  if (isRefusal(run)) throw new Error(run.message);
  return run;
}

describe('a name is registered over its link', () => {
  test('it stands in the ledger with its end, its books, what was chosen and its deadline', async () => {
    made = await acquiringLedger();
    const { ledger, world, accountId } = made;
    const run = await agreed(['ternloft.com'], { years: 2, privacy: true });
    expect(await carryOnRegistrations(ledger)).toBe(1);
    expect(await registrationRun(ledger, run)).toMatchObject([
      { ascii: 'ternloft.com', state: 'done', chargedMinor: 2276, registeredAt: TODAY, newEnd: addYears(TODAY, 2) },
    ]);
    expect(
      await rows(
        `select account_id as at, term_end as end, setting, requested, requested_lock as lock, requested_privacy as privacy,
           confirm_mail_by as mail from names where ascii = 'ternloft.com'`,
      ),
    ).toEqual([
      {
        at: accountId,
        end: addYears(TODAY, 2),
        setting: 'off',
        requested: 'on',
        lock: true,
        privacy: true,
        mail: addDays(TODAY, 15),
      },
    ]);
    expect(
      await rows(
        "select kind, minor, currency, reference <> '' as receipted, note, quoted_minor as quoted from entries",
      ),
    ).toEqual([
      {
        kind: 'registration',
        minor: 2276,
        currency: 'USD',
        receipted: true,
        note: '2 years, ternloft.com',
        quoted: 2276,
      },
    ]);
    expect(await rows('select balance_minor as left from accounts')).toEqual([{ left: 18_640 - 2276 }]);
    expect(await shortlist(ledger)).toEqual([]);
    await carryOutSwitches(ledger);
    expect(world.domains.get('ternloft.com')).toMatchObject({ owner: 'office', auto: 'on', lock: true, privacy: true });
  });

  test('both forms of a name in other letters stand in its receipt', async () => {
    made = await acquiringLedger();
    await agreed(['möwenkai.com']);
    await carryOnRegistrations(made.ledger);
    expect(await rows('select note from entries')).toEqual([{ note: '1 year, xn--mwenkai-90a.com (möwenkai.com)' }]);
  });

  test('a name with a price of its own keeps its dear renewals', async () => {
    made = await acquiringLedger();
    customer().balanceMinor = 10_000_000;
    const own = unregistered(PREMIUM).own;
    await agreed([PREMIUM]);
    await carryOnRegistrations(made.ledger);
    expect(await rows(`select year_minor as year from prices where name_id is not null`)).toEqual([
      { year: own?.renewMinor },
    ]);
    expect(await rows('select minor from entries')).toEqual([{ minor: own?.registerMinor }]);
  });

  test('one that left long ago comes back with its books', async () => {
    made = await acquiringLedger();
    const { ledger, world } = made;
    world.domains.delete('copperbuoy.com');
    await ledger.database.query("update names set gone_at = now() - interval '400 days'");
    await agreed(['copperbuoy.com']);
    await carryOnRegistrations(ledger);
    expect(await rows('select ascii, gone_at from names')).toEqual([{ ascii: 'copperbuoy.com', gone_at: null }]);
  });
});

describe('nothing is bought for more than was shown, or twice', () => {
  test.each(['cut', 'garbage', 'result lost', 'slow', 'busy', 'duplicate'] as readonly FaultKind[])(
    '%s: registered once, paid once',
    async (kind) => {
      made = await acquiringLedger();
      await agreed(['ternloft.com', 'wrackloft.com']);
      made.practice.faults.set('quaymark', kind, 2);
      for (let pass = 0; pass < 4; pass += 1) await carryOnRegistrations(made.ledger);
      expect(made.world.receipts.map(({ action }) => action)).toEqual(['register', 'register']);
      expect(await rows('select count(*) as n, sum(minor) as paid from entries')).toEqual([{ n: 2, paid: 2276 }]);
      expect(await rows(`select count(*) as n from names where ascii like '%loft.com'`)).toEqual([{ n: 2 }]);
    },
  );

  test('two orders for one name at once: one is taken', async () => {
    made = await acquiringLedger();
    const both = await Promise.all([
      agreeTo(made, ['ternloft.com'], { key: 'a' }),
      agreeTo(made, ['ternloft.com'], { key: 'b' }),
    ]);
    expect(both.filter(isRefusal)).toMatchObject([{ code: 'registration-under-way' }]);
    await Promise.all([carryOnRegistrations(made.ledger), carryOnRegistrations(made.ledger)]);
    await carryOnRegistrations(made.ledger);
    expect(made.world.receipts).toHaveLength(1);
  });

  test('one name of several that is under way already keeps all of them from being bought', async () => {
    made = await acquiringLedger();
    await agreed(['ternloft.com']);
    expect(await agreeTo(made, ['ternloft.com', 'wrackloft.com'])).toMatchObject({ code: 'registration-under-way' });
    expect(await rows('select ascii from registrations')).toEqual([{ ascii: 'ternloft.com' }]);
  });

  test('the same order told twice is one', async () => {
    made = await acquiringLedger();
    const first = await agreed(['ternloft.com'], { key: 'once' });
    const again = await registerNames(made.ledger, {
      key: 'once',
      items: [{ ascii: 'ternloft.com', agreedMinor: 1138 }],
    });
    expect(again).toBe(first);
    await carryOnRegistrations(made.ledger);
    expect(made.world.receipts).toHaveLength(1);
  });

  test('a price that rose since it was shown buys nothing', async () => {
    made = await acquiringLedger();
    expect(await agreeTo(made, ['ternloft.com'], { agreedMinor: 1137 })).toMatchObject({ code: 'price-rose' });
    expect((await registrations(made.ledger)).open).toEqual([]);
  });

  test('one that rises between the check and the order is refused by its registrar (2004)', async () => {
    made = await acquiringLedger();
    await agreed(['ternloft.com']);
    made.practice.faults.set('quaymark', 'dearer', 1);
    await carryOnRegistrations(made.ledger);
    expect(await one()).toMatchObject({ state: 'refused', problem: expect.stringContaining('It costs more now') });
    expect(made.world.receipts).toEqual([]);
  });

  test('a balance that is too small is told (2104), and the order can be given again', async () => {
    made = await acquiringLedger();
    customer().balanceMinor = 5;
    customer().paymentMethods = customer().paymentMethods.filter(({ kind }) => kind === 'balance');
    await agreed(['ternloft.com']);
    await carryOnRegistrations(made.ledger);
    expect(await one()).toMatchObject({ state: 'refused', problem: expect.stringContaining('Top up the balance') });
    customer().balanceMinor = 5000;
    await agreed(['ternloft.com']);
    await carryOnRegistrations(made.ledger);
    expect(made.world.receipts).toHaveLength(1);
  });

  test('somebody faster is an ordinary outcome: nothing is paid', async () => {
    made = await acquiringLedger();
    await agreed(['ternloft.com']);
    made.practice.faults.set('quaymark', 'somebody faster', 1);
    await carryOnRegistrations(made.ledger);
    expect(await one()).toMatchObject({
      state: 'refused',
      problem: 'Somebody else has registered it. Nothing was paid.',
    });
    expect(await rows('select count(*) as n from entries')).toEqual([{ n: 0 }]);
    expect(made.world.domains.get('ternloft.com')).toMatchObject({ owner: 'stranger' });
  });

  test('taken for later: pending until its message, then ours by its receipt', async () => {
    made = await acquiringLedger();
    await agreed(['ternloft.com']);
    made.practice.faults.set('quaymark', 'finished later', 1);
    await carryOnRegistrations(made.ledger);
    expect(await one()).toMatchObject({ state: 'pending' });
    await pollEveryAccount(made.ledger);
    await carryOnRegistrations(made.ledger);
    expect(await one()).toMatchObject({ state: 'done', chargedMinor: 1138 });
    expect(made.world.receipts).toHaveLength(1);
  });

  test('taken for later and no longer there: its message is waited for, nothing is sent again', async () => {
    made = await acquiringLedger();
    await agreed(['ternloft.com']);
    made.practice.faults.set('quaymark', 'finished later', 1);
    await carryOnRegistrations(made.ledger);
    made.world.domains.delete('ternloft.com');
    await carryOnRegistrations(made.ledger);
    expect(await one()).toMatchObject({ state: 'pending' });
    expect(made.world.receipts).toHaveLength(1);
  });

  test('a registrar that is away keeps nothing waiting for ever: it is sent once it is back', async () => {
    made = await acquiringLedger();
    await agreed(['ternloft.com']);
    for (const { link } of made.ledger.links.values()) await link.close();
    made.practice.faults.set('quaymark', 'refused', 1000);
    await carryOnRegistrations(made.ledger);
    expect(await one()).toMatchObject({ state: 'waiting', problem: expect.stringContaining('cannot be reached') });
    made.practice.faults.set('quaymark', null, 0);
    await carryOnRegistrations(made.ledger);
    expect(await one()).toMatchObject({ state: 'done' });
  });
});

describe('by hand', () => {
  async function byHand() {
    made = await acquiringLedger();
    await agreed(['copperkiln.com']);
    await made.ledger.database.query('update registrations set by_hand = true');
    expect(await carryOnRegistrations(made.ledger)).toBe(0);
    return (await registrations(made.ledger)).open[0]?.id ?? 0;
  }

  test('what was charged is written down once; another sum than was shown is questioned', async () => {
    const id = await byHand();
    const told = { id, came: 'registered', chargedMinor: 1200, chargedOn: '2026-11-23', reference: 'R-17' };
    expect(await tellRegistration(made.ledger, told)).toMatchObject({ code: 'amount-differs' });
    expect(await tellRegistration(made.ledger, { ...told, isOtherSum: true })).toBe('copperkiln.com');
    expect(await tellRegistration(made.ledger, { ...told, isOtherSum: true })).toBe('copperkiln.com');
    expect(await rows('select minor, reference from entries')).toEqual([{ minor: 1200, reference: 'R-17' }]);
    expect(
      await rows("select setting, standing, term_end_day as day from names where ascii = 'copperkiln.com'"),
    ).toEqual([{ setting: 'on', standing: 'believed', day: true }]);
  });

  test('somebody else was faster', async () => {
    const id = await byHand();
    await tellRegistration(made.ledger, { id, came: 'somebody else' });
    expect((await registrations(made.ledger)).settled).toMatchObject([{ state: 'refused' }]);
    expect(await rows('select count(*) as n from entries')).toEqual([{ n: 0 }]);
  });

  test.each([
    [{ chargedMinor: undefined }, 'amount-missing'],
    [{ chargedMinor: -1 }, 'request-invalid'],
    [{ chargedMinor: 1138, chargedOn: '2027-01-01' }, 'date-out-of-range'],
    [{ chargedMinor: 1138, chargedOn: '2026-02-30' }, 'date-out-of-range'],
  ])('%j makes no sense', async (wrong, code) => {
    const id = await byHand();
    expect(await tellRegistration(made.ledger, { id, came: 'registered', ...wrong })).toMatchObject({ code });
  });
});
