import { afterEach, describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { addYears, instant } from '@/core/time';
import { savePrice } from '@/usecases/accounts/prices';
import { testLink } from '@/usecases/links/links';
import { pollAccount } from '@/usecases/links/poll';
import { nameOn } from '@/usecases/names/one';
import { carryOutRun } from '@/usecases/orders/carryOut';
import { priceRun, runProgress, startRun } from '@/usecases/orders/start';
import { FAULTS } from '../../practice/epp/faults';
import { type LinkedLedger, linkedLedger } from './practice';

const END = instant('2026-12-09T10:15:00Z');
const NAMES = ['copperbuoy.com', 'larchpilot.com', 'tidewick.com'] as const;

let made: LinkedLedger;
afterEach(() => made.close());

const rowsOf = async (sql: string) => (await made.ledger.database.query(sql)).rows;
const ends = () => [...made.world.domains.values()].map((domain) => domain.paidThrough);
const states = async (id: string) => (await runProgress(made.ledger, id)).items.map((item) => item.state).sort();

describe('a run over a link', () => {
  test('is priced live, started once, carried out, and booked with receipts', async () => {
    made = await linkedLedger(NAMES, END);
    const { ledger } = made;
    expect(await testLink(ledger, made.accountId)).toBe('Quaymark Names BV');
    const id = await made.plan(NAMES);
    const priced = await priceRun(ledger, id);
    expect(priced).toMatchObject({ items: [{ liveMinor: 1138 }, { liveMinor: 1138 }, { liveMinor: 1138 }] });
    expect(await startRun(ledger, id)).toBe(3);
    expect(await startRun(ledger, id)).toBe(0);
    expect(await carryOutRun(ledger, id)).toEqual({ settled: 3, left: 0 });
    expect(await carryOutRun(ledger, id)).toEqual({ settled: 0, left: 0 });
    expect(new Set(ends())).toEqual(new Set([addYears(END, 1)]));
    expect(made.world.receipts).toHaveLength(3);
    expect(await nameOn(ledger, 'tidewick.com', new URLSearchParams())).toMatchObject({
      expiresAt: '2027-12-09T10:15:00Z',
      spent: [{ amount: '11.38', currency: 'USD' }],
    });
    expect(await rowsOf('select status from renewals')).toEqual([{ status: 'confirmed' }]);
    expect(await rowsOf('select balance_minor from accounts')).toEqual([{ balance_minor: 18_640 - 3 * 1138 }]);
  });

  test('what was shown last is the most that is paid, whatever becomes of the price list before it is started', async () => {
    made = await linkedLedger(NAMES, END);
    const { ledger, accountId } = made;
    const id = await made.plan(NAMES);
    await priceRun(ledger, id);
    const dearer = { accountId, ending: 'com', action: 'renew', currency: 'USD', yearMinor: 9000, from: '2026-01-01' };
    expect(isRefusal(await savePrice(ledger, { ...dearer, feeIncluded: true }))).toBe(false);
    expect(await startRun(ledger, id)).toBe(3);
    expect(await rowsOf('select distinct fee_cap_minor::int as cap from renewal_items')).toEqual([{ cap: 1138 }]);
    await carryOutRun(ledger, id);
    expect(await states(id)).toEqual(['done', 'done', 'done']);
    expect(await rowsOf('select distinct charged_minor::int as charged from renewal_items')).toEqual([
      { charged: 1138 },
    ]);
  });

  test('a registrar that has become dearer since is not paid: it is refused by its cap, and priced anew', async () => {
    made = await linkedLedger(NAMES, END);
    const { ledger, world } = made;
    const prices = world.registrars.get('quaymark')?.prices as Record<string, { renew: number }>;
    const id = await made.plan(NAMES);
    await priceRun(ledger, id);
    prices.com = { ...(prices.com as { renew: number }), renew: 1999 };
    await startRun(ledger, id);
    await carryOutRun(ledger, id);
    expect(await states(id)).toEqual(['refused', 'refused', 'refused']);
    expect(world.receipts).toEqual([]);
    expect(ends()).toEqual([END, END, END]);
    expect(await priceRun(ledger, id)).toMatchObject({
      items: [{ liveMinor: 1999 }, { liveMinor: 1999 }, { liveMinor: 1999 }],
    });
    expect(await startRun(ledger, id)).toBe(3);
    await carryOutRun(ledger, id);
    expect(await states(id)).toEqual(['done', 'done', 'done']);
    expect(await rowsOf('select distinct charged_minor::int as charged from renewal_items')).toEqual([
      { charged: 1999 },
    ]);
  });

  test('a name that is being renewed already is not put into a second run', async () => {
    made = await linkedLedger(NAMES, END);
    const first = await made.plan(NAMES);
    const second = await made.plan([NAMES[0]]);
    await startRun(made.ledger, first);
    expect(await startRun(made.ledger, second)).toMatchObject({ code: 'change-under-way' });
  });

  test('one that is refused says why; mended, only it is tried again', async () => {
    made = await linkedLedger(NAMES, END);
    const customer = made.world.customers.get('quaymark');
    if (customer) customer.balanceMinor = 2 * 1138;
    const id = await made.plan(NAMES);
    await startRun(made.ledger, id);
    await carryOutRun(made.ledger, id);
    expect(await states(id)).toEqual(['done', 'done', 'refused']);
    const refused = (await runProgress(made.ledger, id)).items.find((item) => item.state === 'refused');
    expect(refused?.problem).toBe(
      'Not paid: card ended 2026-10. Top up the balance or replace the card, then try again.',
    );
    expect(await rowsOf('select status from renewals')).toEqual([{ status: 'requested' }]);
    if (customer) customer.balanceMinor = 5000;
    expect(await startRun(made.ledger, id)).toBe(1);
    await carryOutRun(made.ledger, id);
    expect(await states(id)).toEqual(['done', 'done', 'done']);
    expect(made.world.receipts).toHaveLength(3);
  });

  test('a name that somebody renewed meanwhile is left to a person: nothing is booked', async () => {
    made = await linkedLedger(NAMES, END);
    const domain = made.world.domains.get('copperbuoy.com');
    if (domain) domain.paidThrough = addYears(END, 1);
    const id = await made.plan(['copperbuoy.com']);
    await startRun(made.ledger, id);
    await carryOutRun(made.ledger, id);
    expect(await states(id)).toEqual(['doubt']);
    expect(await rowsOf('select count(*) as n from entries')).toEqual([{ n: 0 }]);
  });

  test('a registrar that is away is tried again later', async () => {
    made = await linkedLedger(NAMES, END);
    const id = await made.plan(NAMES);
    await startRun(made.ledger, id);
    await made.practice.stop();
    expect(await carryOutRun(made.ledger, id)).toEqual({ settled: 0, left: 3 });
    expect(await states(id)).toEqual(['waiting', 'waiting', 'waiting']);
  });
});

describe('whatever goes wrong on the way, every name is renewed once and the books agree', () => {
  test.each(FAULTS)(
    '%s',
    async (kind) => {
      made = await linkedLedger(NAMES, END);
      const id = await made.plan(NAMES);
      await startRun(made.ledger, id);
      made.practice.faults.set('quaymark', kind, 2);
      for (let pass = 0; pass < 4; pass += 1) {
        await carryOutRun(made.ledger, id);
        await pollAccount(made.ledger, made.accountId);
      }
      expect(await states(id)).toEqual(['done', 'done', 'done']);
      expect(new Set(ends())).toEqual(new Set([addYears(END, 1)]));
      expect(made.world.receipts).toHaveLength(3);
      expect(await rowsOf('select count(*) as n, sum(minor) as paid from entries')).toEqual([{ n: 3, paid: 3 * 1138 }]);
    },
    30_000,
  );
});

test('charges, failures and deletions arrive by message, once each', async () => {
  made = await linkedLedger(NAMES, END);
  const { ledger, practice, world } = made;
  const customer = world.customers.get('quaymark');
  if (customer) customer.balanceMinor = 1138;
  const later = instant('2027-01-25T00:00:00Z');
  await practice.passTo(later);
  ledger.setClock(later);
  expect(await pollAccount(ledger, made.accountId)).toBeGreaterThan(5);
  expect(await pollAccount(ledger, made.accountId)).toBe(0);
  const seen = async (name: string) => nameOn(ledger, name, new URLSearchParams());
  expect(await seen('copperbuoy.com')).toMatchObject({
    expiresAt: '2027-12-09T10:15:00Z',
    autoRenew: { setting: 'on', standing: 'confirmed' },
    spent: [{ amount: '11.38', currency: 'USD' }],
  });
  expect(await seen('larchpilot.com')).toMatchObject({ phase: 'redemption', autoRenew: { setting: 'stalled' } });
  expect(await rowsOf("select count(*) as n from registrar_messages where kind = 'charge-failed'")).toEqual([{ n: 4 }]);
});
