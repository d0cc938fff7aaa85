import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { RENEWAL } from '@/core/ledger/sampleLedger';
import { isRefusal } from '@/core/refusal';
import { addDays, type Instant } from '@/core/time';
import { transaction } from '@/database/pool';
import { upsertPrices } from '@/database/prices';
import { carryOnReleases } from '@/usecases/acquiring/carryOnReleases';
import { orderAtRelease, releaseOrders, releaseTries, stopRelease } from '@/usecases/acquiring/releaseOrders';
import { saveLink } from '@/usecases/links/links';
import { blankDomain } from '../../practice/world/domain';
import { acquiringLedger, strangersHold } from './acquiring';
import { TODAY, usualAccount } from './ledger';
import type { LinkedLedger } from './practice';

const MINUTE = 60_000;
let made: LinkedLedger;
let second: number;

/** Two linked accounts that sell .com: Quaymark, and Wrackgate, where it is cheaper. */
beforeEach(async () => {
  made = await acquiringLedger();
  const { ledger, practice } = made;
  second = await usualAccount(ledger, 'Wrackgate');
  await saveLink(ledger, {
    accountId: second,
    host: '127.0.0.1',
    port: practice.ports.wrackgate,
    login: 'harbour-wrackgate',
    password: 'wrackgate-practice-pw',
  });
  await transaction(ledger.database, (tx) =>
    upsertPrices(tx, [{ ...RENEWAL, accountId: second, currency: 'USD', action: 'register', yearMinor: 1019 }]),
  );
});
afterEach(() => made.close());

/** A name of somebody else that is about to be deleted for good. */
function leaving(name: string, grabbed = false): void {
  const { world } = made;
  world.domains.set(name, {
    ...blankDomain(name, 'larkhythe', TODAY - 500 * 1440 * MINUTE, addDays(TODAY, -40)),
    owner: 'stranger',
    state: 'pending delete',
    since: addDays(TODAY, -4),
    deletedAt: addDays(TODAY, -34),
  });
  world.grabs = () => grabbed;
}

async function order(name: string, more: Record<string, unknown> = {}): Promise<number> {
  const id = await orderAtRelease(made.ledger, {
    name,
    accountIds: [made.accountId, second],
    years: 1,
    mostFirstMinor: 2000,
    mostRenewalMinor: 2000,
    until: '2026-12-20',
    ...more,
  });
  if (isRefusal(id)) throw new Error(id.message);
  return id;
}

/** Time passes outside and here. */
async function passTo(at: Instant): Promise<void> {
  await made.practice.passTo(at);
  made.ledger.setClock(at);
}
const state = async (id: number) => (await releaseOrders(made.ledger)).find((one) => one.id === id);
const registered = () => made.world.receipts.filter(({ action }) => action === 'register');

describe('a name is registered when it is released', () => {
  test('not before; then at the first account, within a minute, once', async () => {
    leaving('wrackloft.com');
    const id = await order('wrackloft.com');
    await carryOnReleases(made.ledger);
    expect(await state(id)).toMatchObject({ state: 'trying' });
    expect(await releaseTries(made.ledger, id)).toMatchObject([
      { outcome: expect.stringContaining('not released yet') },
    ]);
    await passTo(addDays(TODAY, 2));
    await carryOnReleases(made.ledger);
    expect(await state(id)).toMatchObject({ state: 'got', problem: null });
    expect(registered()).toMatchObject([{ name: 'wrackloft.com', amountMinor: 1138 }]);
    const { rows } = await made.ledger.database.query(
      "select account_id as at from names where ascii = 'wrackloft.com'",
    );
    expect(rows).toEqual([{ at: made.accountId }]);
    expect(await carryOnReleases(made.ledger)).toBe(0);
  });

  test('its earliest instant is waited for', async () => {
    strangersHold(made, 'wrackloft.com');
    await made.ledger.database.query(
      "insert into watches (ascii, unicode, ending, since) values ('wrackloft.com', 'wrackloft.com', 'com', now())",
    );
    const { checkNow } = await import('@/usecases/records/check');
    await checkNow(made.ledger, 'wrackloft.com');
    const id = await order('wrackloft.com', { until: '2027-06-01' });
    expect(await state(id)).toMatchObject({ fromAt: addDays(TODAY, 65 + 35), state: 'waiting' });
    await carryOnReleases(made.ledger);
    expect(await releaseTries(made.ledger, id)).toEqual([]);
  });

  test('somebody else is faster: lost, and nothing is paid', async () => {
    leaving('wrackloft.com', true);
    const id = await order('wrackloft.com');
    await passTo(addDays(TODAY, 2));
    await carryOnReleases(made.ledger);
    expect(await state(id)).toMatchObject({ state: 'lost', problem: expect.stringContaining('Nothing was paid') });
    expect(registered()).toEqual([]);
  });

  test('faster between the question and the order', async () => {
    const id = await order('wrackloft.com');
    made.practice.faults.set('quaymark', 'somebody faster', 1);
    await carryOnReleases(made.ledger);
    expect((await state(id))?.state).toBe('lost');
    expect(registered()).toEqual([]);
  });
});

describe('no account is tried more than once a minute, whatever it is for', () => {
  test('twenty orders over an hour', async () => {
    const names = Array.from({ length: 20 }, (_, i) => `wrack${i}loft.com`);
    for (const name of names) leaving(name);
    for (const name of names) await order(name);
    for (let minute = 0; minute < 30; minute += 0.5) {
      made.ledger.setClock((TODAY + minute * MINUTE) as Instant);
      await carryOnReleases(made.ledger);
    }
    const { rows } = await made.ledger.database.query<{ at: Date; account: number }>(
      'select account_id as account, at from release_tries order by account_id, at',
    );
    expect(rows.length).toBeGreaterThan(25);
    for (const [i, one] of rows.entries()) {
      const before = rows[i - 1];
      if (before?.account === one.account) expect(Number(one.at) - Number(before.at)).toBeGreaterThanOrEqual(MINUTE);
    }
    // Each has its turn.
    const { rows: tried } = await made.ledger.database.query('select count(distinct order_id) as n from release_tries');
    expect(tried).toEqual([{ n: 20 }]);
  });
});

describe('caps, and several accounts in order', () => {
  test('one that asks too much is passed over for the next', async () => {
    const id = await order('wrackloft.com', { mostFirstMinor: 1100 });
    await carryOnReleases(made.ledger);
    expect(await state(id)).toMatchObject({ state: 'got' });
    expect(registered()).toMatchObject([{ amountMinor: 1019 }]);
    expect((await releaseTries(made.ledger, id)).map(({ outcome }) => outcome)).toEqual([
      'registered for $10.19',
      'the first term costs more than was agreed to: $11.38, then $11.38',
    ]);
  });

  test('dear renewals are as good a reason', async () => {
    const id = await order('wrackloft.com', { mostRenewalMinor: 1100 });
    await carryOnReleases(made.ledger);
    expect(await state(id)).toMatchObject({
      state: 'trying',
      problem: expect.stringContaining('the renewal costs more'),
    });
    expect(registered()).toEqual([]);
  });

  test.each(['result lost', 'cut', 'slow'] as const)('%s: settled before the next account is tried', async (kind) => {
    const id = await order('wrackloft.com');
    made.practice.faults.set('quaymark', kind, 3);
    for (let pass = 0; pass < 4; pass += 1) {
      made.ledger.setClock((TODAY + pass * MINUTE) as Instant);
      await carryOnReleases(made.ledger);
    }
    expect(await state(id)).toMatchObject({ state: 'got' });
    expect(registered()).toHaveLength(1);
    expect(made.world.domains.get('wrackloft.com')).toMatchObject({ registrar: 'quaymark' });
  });

  test('an account without money is passed over', async () => {
    const customer = made.world.customers.get('quaymark');
    if (customer) Object.assign(customer, { balanceMinor: 0, paymentMethods: [] });
    const id = await order('wrackloft.com');
    await carryOnReleases(made.ledger);
    expect(await state(id)).toMatchObject({ state: 'got' });
    expect(made.world.domains.get('wrackloft.com')).toMatchObject({ registrar: 'wrackgate' });
  });
});

test('after its last day it is over; stopped, it is tried no more', async () => {
  leaving('wrackloft.com');
  leaving('cairnloft.com');
  const [late, stopped] = [await order('wrackloft.com', { until: '2026-11-24' }), await order('cairnloft.com')];
  expect(await stopRelease(made.ledger, stopped)).toBe(true);
  made.ledger.setClock(addDays(TODAY, 1));
  await carryOnReleases(made.ledger);
  expect([(await state(late))?.state, (await state(stopped))?.state]).toEqual(['over', 'stopped']);
  expect(await releaseTries(made.ledger, stopped)).toEqual([]);
  expect(await stopRelease(made.ledger, late)).toMatchObject({ code: 'order-settled' });
});

test.each([
  [{ name: 'copperbuoy.com' }, 'name-known'],
  [{ name: 'no name' }, 'name-with-space'],
  [{ until: '2026-11-23' }, 'until-too-early'],
  [{ until: '2026-02-30' }, 'date-does-not-exist'],
  [{ accountIds: [99_999] }, 'account-not-linked'],
  [{ accountIds: [] }, 'request-invalid'],
  [{ mostFirstMinor: 0 }, 'request-invalid'],
  [{ mostRenewalMinor: undefined }, 'request-invalid'],
])('%j makes no order', async (wrong, code) => {
  const request = {
    name: 'wrackloft.com',
    accountIds: [made.accountId],
    years: 1,
    mostFirstMinor: 2000,
    mostRenewalMinor: 2000,
    until: '2026-12-20',
    ...wrong,
  };
  expect(await orderAtRelease(made.ledger, request)).toMatchObject({ code });
});

test('a name is ordered once at a time', async () => {
  await order('wrackloft.com');
  const again = {
    name: 'wrackloft.com',
    accountIds: [second],
    years: 1,
    mostFirstMinor: 1,
    mostRenewalMinor: 1,
    until: '2026-12-20',
  };
  expect(await orderAtRelease(made.ledger, again)).toMatchObject({ code: 'order-open' });
});
