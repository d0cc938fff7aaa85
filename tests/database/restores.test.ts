import { afterEach, describe, expect, test } from 'vitest';
import { addDays, addYears, formatInstant } from '@/core/time';
import { nameOn } from '@/usecases/names/one';
import { carryOutRun } from '@/usecases/orders/carryOut';
import { confirmRenewal } from '@/usecases/orders/confirm';
import { planRenewal } from '@/usecases/orders/plan';
import { priceRun, runProgress, sendReportsAgain, startRun } from '@/usecases/orders/start';
import { FAULTS } from '../../practice/epp/faults';
import type { Domain } from '../../practice/world/types';
import { TODAY } from './ledger';
import { type LinkedLedger, linkedLedger } from './practice';

const END = addDays(TODAY, -60);
const DELETED = addDays(END, 45);
const IN_REDEMPTION = { auto: 'off', state: 'redemption', since: DELETED, deletedAt: DELETED } as const;
const NAME = 'brinelantern.com';
const CERTIFIED = { reason: 'The holder missed the end of the term.', certified: true };
const PRICE = 11_380 + 1138;

let made: LinkedLedger;
afterEach(() => made.close());
const begin = async (more: Partial<Domain> = IN_REDEMPTION) => {
  made = await linkedLedger([NAME], END, more);
  return made.plan([NAME], 'restore');
};
const state = async (id: string) => (await runProgress(made.ledger, id)).items[0];
const outside = () => made.world.domains.get(NAME) as Domain;
const money = async () =>
  (await made.ledger.database.query('select kind, minor from entries order by id')).rows as unknown[];

describe('a restore over a link', () => {
  test('is priced live, certified, paid, reported, and the name is back with a year more', async () => {
    const id = await begin();
    expect(await priceRun(made.ledger, id)).toMatchObject({ items: [{ liveMinor: PRICE }] });
    expect(await startRun(made.ledger, id)).toMatchObject({ kind: 'refusal' });
    expect(await startRun(made.ledger, id, { ...CERTIFIED, certified: false })).toMatchObject({ field: 'certified' });
    expect(await startRun(made.ledger, id, CERTIFIED)).toBe(1);
    expect(await carryOutRun(made.ledger, id)).toEqual({ settled: 1, left: 0 });
    expect(outside()).toMatchObject({ state: 'registered', paidThrough: addYears(END, 1) });
    expect(await nameOn(made.ledger, NAME, new URLSearchParams())).toMatchObject({
      phase: 'term',
      expiresAt: formatInstant(addYears(END, 1)),
      spent: [{ amount: '125.18', currency: 'USD' }],
    });
    expect(await money()).toEqual([{ kind: 'restore', minor: PRICE }]);
  });

  test('a report that is refused is corrected and sent again; nothing is paid twice', async () => {
    const id = await begin();
    made.practice.faults.set('quaymark', 'report refused', 1);
    await startRun(made.ledger, id, CERTIFIED);
    await carryOutRun(made.ledger, id);
    expect(await state(id)).toMatchObject({
      state: 'report refused',
      problem:
        'The registrar refuses the report: the reason given says too little. Correct it and send it again before it is due.',
    });
    expect(await nameOn(made.ledger, NAME, new URLSearchParams())).toMatchObject({ phase: 'pending restore' });
    expect(await carryOutRun(made.ledger, id)).toEqual({ settled: 0, left: 0 });
    expect(await sendReportsAgain(made.ledger, id, { ...CERTIFIED, reason: 'A card had ended unnoticed.' })).toBe(1);
    expect(await carryOutRun(made.ledger, id)).toEqual({ settled: 1, left: 0 });
    expect(outside().state).toBe('registered');
    expect(await money()).toEqual([{ kind: 'restore', minor: PRICE }]);
    expect(await sendReportsAgain(made.ledger, id, CERTIFIED)).toMatchObject({ code: 'no-report-refused' });
  });

  test('in deletion already: refused, and nothing is paid', async () => {
    const id = await begin();
    Object.assign(outside(), { state: 'pending delete', since: TODAY });
    await startRun(made.ledger, id, CERTIFIED);
    await carryOutRun(made.ledger, id);
    expect(await state(id)).toMatchObject({
      state: 'refused',
      problem: 'Pending delete already: nothing can be done until it is available. Nothing was paid.',
    });
    expect(await money()).toEqual([]);
  });

  test('dearer than was agreed: refused until the prices are asked for again', async () => {
    const id = await begin();
    const prices = made.world.registrars.get('quaymark')?.prices.com as { restore: number };
    await priceRun(made.ledger, id);
    prices.restore += 2000;
    await startRun(made.ledger, id, CERTIFIED);
    await carryOutRun(made.ledger, id);
    expect(await state(id)).toMatchObject({ state: 'refused' });
    expect((await state(id))?.problem).toContain('It costs more now');
    expect(outside().state).toBe('redemption');
    await priceRun(made.ledger, id);
    await startRun(made.ledger, id, CERTIFIED);
    await carryOutRun(made.ledger, id);
    expect(await money()).toEqual([{ kind: 'restore', minor: PRICE + 2000 }]);
    prices.restore -= 2000;
  });

  test('balance short: refused with what to do; nothing is half done', async () => {
    const id = await begin();
    const customer = made.world.customers.get('quaymark');
    if (customer) customer.balanceMinor = 100;
    await startRun(made.ledger, id, CERTIFIED);
    await carryOutRun(made.ledger, id);
    expect((await state(id))?.problem).toContain('Top up the balance');
    expect(outside().state).toBe('redemption');
    expect(await money()).toEqual([]);
  });

  test.each(FAULTS.filter((fault) => fault !== 'report refused'))('%s: paid once, and back', async (fault) => {
    const id = await begin();
    made.practice.faults.set('quaymark', fault, 2);
    await startRun(made.ledger, id, CERTIFIED);
    for (let pass = 0; pass < 4 && (await state(id))?.state !== 'done'; pass += 1) await carryOutRun(made.ledger, id);
    expect((await state(id))?.state).toBe('done');
    expect(made.world.receipts).toHaveLength(1);
    expect(await money()).toEqual([{ kind: 'restore', minor: PRICE }]);
  });
});

test('by hand: the same flow, confirmed with what happened', async () => {
  const id = await begin();
  await made.ledger.database.query(
    'update accounts set link_host = null, link_port = null, link_login = null, link_secret = null',
  );
  const done = await confirmRenewal(made.ledger, {
    id,
    chargedOn: '2026-11-24',
    paymentMethod: 'card',
    reference: 'R-17',
    items: [{ nameId: made.ids.get(NAME), done: true, chargedMinor: 13_000 }],
  });
  expect(done).toMatchObject({ changed: 1, summary: 'Restored one name by hand' });
  expect(await money()).toEqual([{ kind: 'restore', minor: 13_000 }]);
  expect(await nameOn(made.ledger, NAME, new URLSearchParams())).toMatchObject({ phase: 'term' });
});

test('a name in term is not restored, one in redemption not renewed: each says until or from when it works', async () => {
  await begin();
  const items = [{ nameId: made.ids.get(NAME), years: 1 }];
  const refused = (message: string) => ({ quote: { items: [{ refusal: { message } }] } });
  expect(await planRenewal(made.ledger, { items })).toMatchObject(
    refused('In redemption since 9 Nov 2026: it can only be restored, until 9 Dec 2026.'),
  );
  await made.ledger.database.query("update names set term_end = '2027-03-01'");
  expect(await planRenewal(made.ledger, { items, action: 'restore' })).toMatchObject(
    refused('Not deleted: renew it. A restore is for after 15 Apr 2027.'),
  );
});
