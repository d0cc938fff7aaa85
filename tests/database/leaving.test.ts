import { afterEach, describe, expect, test } from 'vitest';
import { instant } from '@/core/time';
import { undo } from '@/usecases/names/undo';
import { carryOutRun } from '@/usecases/orders/carryOut';
import { changeRenewal, moveRenewal, openRenewal, openRenewals } from '@/usecases/orders/plan';
import { finishRun, leaveItem, priceRun, runOfName, runProgress, startRun, stopRun } from '@/usecases/orders/start';
import { type LinkedLedger, linkedLedger } from './practice';

/** Any run can be left at any moment, and what was not settled stays as it was. */

const END = instant('2026-12-09T10:15:00Z');
const NAMES = ['copperbuoy.com', 'larchpilot.com', 'tidewick.com'] as const;
const [COPPER, LARCH] = NAMES;

let made: LinkedLedger;
afterEach(() => made.close());
const begin = async (names: readonly string[] = NAMES) => {
  made = await linkedLedger(NAMES, END);
  return made.plan(names);
};
const idOf = (ascii: string) => made.ids.get(ascii) as number;
const states = async (id: string) =>
  Object.fromEntries((await runProgress(made.ledger, id)).items.map((item) => [item.nameId, item.state]));
const status = async () =>
  (await made.ledger.database.query<{ status: string }>('select status from renewals order by made_at')).rows.map(
    (row) => row.status,
  );
const revision = async () =>
  (await made.ledger.database.query<{ revision: number }>('select n as revision from revision')).rows[0]
    ?.revision as number;
const booked = async () =>
  (await made.ledger.database.query<{ n: number }>('select count(*) as n from entries')).rows[0]?.n;
const poor = (minor: number) => {
  const customer = made.world.customers.get('quaymark');
  if (customer) customer.balanceMinor = minor;
};

describe('a plan', () => {
  test('is dropped: nothing was ordered, and its names can be planned again', async () => {
    const id = await begin();
    expect(await openRenewals(made.ledger)).toHaveLength(1);
    expect(await moveRenewal(made.ledger, { id, to: 'dropped' })).toMatchObject({ status: 'dropped' });
    expect(await openRenewals(made.ledger)).toEqual([]);
    expect(await startRun(made.ledger, id)).toMatchObject({ kind: 'refusal' });
    expect(await changeRenewal(made.ledger, id, { items: [{ nameId: idOf(COPPER), years: 2 }] })).toMatchObject({
      code: 'renewal-settled',
    });
    const again = await made.plan([COPPER]);
    expect(await startRun(made.ledger, again)).toBe(1);
    expect(made.world.receipts).toEqual([]);
  });

  test('a registrar’s price holds while the same is asked; another term asks anew', async () => {
    const id = await begin([COPPER, LARCH]);
    await priceRun(made.ledger, id);
    const live = async () => (await runProgress(made.ledger, id)).items.map((item) => item.liveMinor);
    expect(await live()).toEqual([1138, 1138]);
    const items = (years: number) => [
      { nameId: idOf(COPPER), years },
      { nameId: idOf(LARCH), years: 1 },
    ];
    // Leaving a field that was not changed says the same once more.
    await changeRenewal(made.ledger, id, { items: items(1) });
    expect(await live()).toEqual([1138, 1138]);
    await changeRenewal(made.ledger, id, { items: items(2) });
    expect((await live()).filter((minor) => minor !== null)).toEqual([1138]);
    await changeRenewal(made.ledger, id, { items: items(2), promotion: { percent: 10 } });
    expect(await live()).toEqual([null, null]);
  });
});

describe('a run', () => {
  test('is stopped: what was not sent is refused with the reason, and the name is free for another run', async () => {
    const id = await begin();
    await startRun(made.ledger, id);
    expect(await runOfName(made.ledger, idOf(COPPER))).toBe(id);
    expect(await finishRun(made.ledger, id)).toMatchObject({ code: 'run-under-way' });
    expect(await stopRun(made.ledger, id)).toBe(3);
    expect(await stopRun(made.ledger, id)).toMatchObject({ code: 'nothing-to-stop' });
    expect(new Set(Object.values(await states(id)))).toEqual(new Set(['refused']));
    expect(await carryOutRun(made.ledger, id)).toEqual({ settled: 0, left: 0 });
    expect(made.world.receipts).toEqual([]);
    expect(await runOfName(made.ledger, idOf(COPPER))).toBeNull();
    expect(await finishRun(made.ledger, id)).toBe(true);
    const other = await made.plan([COPPER]);
    expect(await startRun(made.ledger, other)).toBe(1);
  });

  test('that is partly done is closed: the refused names stay as they are, the done ones are booked once', async () => {
    const id = await begin();
    poor(1138);
    await startRun(made.ledger, id);
    await carryOutRun(made.ledger, id);
    expect(Object.values(await states(id)).sort()).toEqual(['done', 'refused', 'refused']);
    // Opened again it shows the ends as they were ordered, not a year later.
    const open = await openRenewal(made.ledger, id);
    if (!('quote' in open)) throw new Error(open.message);
    for (const item of open.quote.items) expect(item.newEnd?.at).toBe(instant('2027-12-09T10:15:00Z'));
    expect(await finishRun(made.ledger, id)).toBe(true);
    expect(await finishRun(made.ledger, id)).toMatchObject({ kind: 'refusal' });
    expect(await booked()).toBe(1);
    expect(await status()).toEqual(['confirmed']);
    expect(await startRun(made.ledger, id)).toMatchObject({ kind: 'refusal' });
  });

  test('a name in doubt is left by a person, and only then the run can be closed', async () => {
    made = await linkedLedger(NAMES, END);
    const domain = made.world.domains.get(COPPER);
    if (domain) domain.paidThrough = instant('2027-12-09T10:15:00Z');
    const id = await made.plan([COPPER]);
    await startRun(made.ledger, id);
    await carryOutRun(made.ledger, id);
    expect(await states(id)).toEqual({ [idOf(COPPER)]: 'doubt' });
    expect(await finishRun(made.ledger, id)).toMatchObject({ code: 'run-under-way' });
    expect(await leaveItem(made.ledger, id, idOf(LARCH))).toMatchObject({ code: 'item-not-in-doubt' });
    expect(await leaveItem(made.ledger, id, idOf(COPPER))).toBe(true);
    expect(await finishRun(made.ledger, id)).toBe(true);
    expect(await booked()).toBe(0);
  });

  test('every step of a run is seen by the windows that are open: the ledger’s number rises', async () => {
    const id = await begin();
    const rises = async (what: string, work: () => Promise<unknown>) => {
      const before = await revision();
      await work();
      expect([what, (await revision()) > before]).toEqual([what, true]);
    };
    await rises('plan', () => made.plan([COPPER]));
    await rises('ask', () => moveRenewal(made.ledger, { id, to: 'requested' }));
    await rises('start', () => startRun(made.ledger, id));
    await rises('stop', () => stopRun(made.ledger, id));
    await rises('close', () => finishRun(made.ledger, id));
    const other = await made.plan([LARCH]);
    await rises('drop', () => moveRenewal(made.ledger, { id: other, to: 'dropped' }));
  });

  test('a batch of a run that is taken back takes its price along and leaves the registrar’s receipt', async () => {
    const id = await begin([COPPER]);
    await startRun(made.ledger, id);
    await carryOutRun(made.ledger, id);
    const { rows } = await made.ledger.database.query<{ id: number }>('select max(batch_id) as id from entries');
    await undo(made.ledger, rows[0]?.id as number);
    const { rows: sums } = await made.ledger.database.query('select sum(minor) as minor, count(*) as n from entries');
    expect(sums).toEqual([{ minor: 0, n: 2 }]);
    expect(made.world.receipts).toHaveLength(1);
  });
});
