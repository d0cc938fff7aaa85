import { afterEach, describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { addDays } from '@/core/time';
import type { Deps } from '@/usecases/deps';
import { historyPage } from '@/usecases/names/history';
import { carryOutRun } from '@/usecases/orders/carryOut';
import { priceRun, startRun } from '@/usecases/orders/start';
import { setSecondPerson, settleConfirmation, waitingFor } from '@/usecases/people/confirmations';
import { identify } from '@/usecases/people/identify';
import { invite, inviteAgain } from '@/usecases/people/invitations';
import { addProgram, changeMember, endMember, members } from '@/usecases/people/members';
import { sealAnew } from '@/usecases/secrets/keys';
import { keyFrom, type SealKey } from '@/usecases/secrets/seal';
import { TODAY } from './ledger';
import { comeInBy, type Inside, letIn, timed } from './people';
import { type LinkedLedger, linkedLedger } from './practice';
import { unrefused } from './unrefused';

const NAME = 'brinelantern.com';
const CERTIFIED = { reason: 'The holder missed the end of the term.', certified: true };

let made: LinkedLedger;
let owner: Inside;
let trader: Inside;
afterEach(() => made.close());

/** An office of an owner and a trader, with a name in redemption or about to end. */
async function office(action: 'renew' | 'restore', monthlyLimitMinor?: number): Promise<string> {
  const end = action === 'restore' ? addDays(TODAY, -60) : addDays(TODAY, 20);
  const deletedAt = addDays(end, 45);
  made = await linkedLedger(
    [NAME],
    end,
    action === 'restore' ? { auto: 'off', state: 'redemption', since: deletedAt, deletedAt } : {},
  );
  const ledger = timed(made.ledger);
  owner = await letIn(ledger, 'Ilsa Tarn', 'owner');
  trader = await letIn(ledger, 'Odo Quill', 'trader', owner.deps, monthlyLimitMinor);
  const id = await made.plan([NAME], action);
  await priceRun(made.ledger, id);
  return id;
}

const waiting = async (deps: Deps) => (await waitingFor(deps)).map(({ what, may }) => [what, may]);
const firstId = async () => (await waitingFor(owner.deps))[0]?.id ?? 0;
const entries = async () =>
  (await made.ledger.database.query<{ person: string | null }>('select person from entries')).rows;
const idOf = async (name: string) => (await members(made.ledger)).find((one) => one.name === name)?.id as number;

describe('a restore', () => {
  test('waits for a second person, and is carried out as who asked once somebody else confirms it', async () => {
    const id = await office('restore');
    expect(await startRun(trader.deps, id, CERTIFIED)).toMatchObject({ code: 'second-person-needed' });
    // Pressed twice it waits once.
    await startRun(trader.deps, id, CERTIFIED);
    expect(await waiting(owner.deps)).toEqual([[`Restore ${NAME}`, 'settle']]);
    expect(await waiting(trader.deps)).toEqual([[`Restore ${NAME}`, 'withdraw']]);
    expect(await carryOutRun(made.ledger, id)).toMatchObject({ settled: 0 });
    expect(await settleConfirmation(trader.deps, await firstId(), 'confirm')).toMatchObject({
      code: 'second-person-other',
    });
    const waits = await firstId();
    expect(await settleConfirmation(owner.deps, waits, 'confirm')).toBe(`Restore ${NAME}: done.`);
    expect(await waiting(owner.deps)).toEqual([]);
    expect(await settleConfirmation(owner.deps, waits, 'confirm')).toMatchObject({ code: 'confirmation-gone' });
    expect(await carryOutRun(made.ledger, id)).toEqual({ settled: 1, left: 0 });
    expect(made.world.domains.get(NAME)?.state).toBe('registered');
    const { rows } = await made.ledger.database.query(
      `select who, action, detail->>'what' as what from audit where action like '%second person%' order by id`,
    );
    expect(rows).toEqual([
      { who: 'Odo Quill', action: 'asked a second person', what: `Restore ${NAME}` },
      { who: 'Odo Quill', action: 'asked a second person', what: `Restore ${NAME}` },
      { who: 'Ilsa Tarn', action: 'second person: confirm', what: `Restore ${NAME}` },
    ]);
  });

  test('waits on after a change of the key', async () => {
    const id = await office('restore');
    await startRun(trader.deps, id, CERTIFIED);
    const next = keyFrom('another key') as SealKey;
    await sealAnew(made.ledger, made.ledger.key as SealKey, next);
    const renewed = { ...owner.deps, key: next };
    expect(await settleConfirmation(renewed, await firstId(), 'confirm')).toBe(`Restore ${NAME}: done.`);
  });

  test('is confirmed once by two who do it in the same moment', async () => {
    const id = await office('restore');
    await startRun(trader.deps, id, CERTIFIED);
    const waits = await firstId();
    const both = await Promise.all([
      settleConfirmation(owner.deps, waits, 'confirm'),
      settleConfirmation(owner.deps, waits, 'confirm'),
    ]);
    expect(both.filter(isRefusal)).toHaveLength(1);
  });

  test.each([
    ['decline', () => owner.deps],
    ['withdraw', () => trader.deps],
  ] as const)('%s: nothing is done', async (answer, by) => {
    const id = await office('restore');
    await startRun(trader.deps, id, CERTIFIED);
    expect(await settleConfirmation(by(), await firstId(), answer)).toBe(`Restore ${NAME}: not done.`);
    expect(await waiting(owner.deps)).toEqual([]);
    expect(await carryOutRun(made.ledger, id)).toMatchObject({ settled: 0 });
  });

  test('is settled by nobody who might not do it himself: a viewer, a program, whoever sits at the machine', async () => {
    const id = await office('restore');
    await startRun(trader.deps, id, CERTIFIED);
    const viewer = await letIn(timed(made.ledger), 'Una Fell', 'viewer', owner.deps);
    const { token } = unrefused(await addProgram(owner.deps, { name: 'Robot', role: 'owner', days: 7 }));
    const { who } = unrefused(await identify(made.ledger, { session: null, bearer: token }));
    expect(await waiting(viewer.deps)).toEqual([[`Restore ${NAME}`, 'see']]);
    for (const deps of [viewer.deps, { ...made.ledger, who }, made.ledger])
      expect(isRefusal(await settleConfirmation(deps, await firstId(), 'confirm'))).toBe(true);
    expect(await waiting(owner.deps)).toHaveLength(1);
  });

  test('lapses after seven days, and with whoever asked', async () => {
    const id = await office('restore');
    await startRun(trader.deps, id, CERTIFIED);
    const waits = await firstId();
    made.ledger.setClock(addDays(TODAY, 7));
    expect(await waiting(owner.deps)).toEqual([]);
    expect(await settleConfirmation(owner.deps, waits, 'confirm')).toMatchObject({ code: 'confirmation-gone' });
    made.ledger.setClock(TODAY);
    await endMember(owner.deps, await idOf('Odo Quill'));
    expect(await settleConfirmation(owner.deps, waits, 'confirm')).toMatchObject({ code: 'asker-gone' });
  });

  test('goes on at once in an office of one, where nobody else could confirm', async () => {
    const id = await office('restore');
    await endMember(owner.deps, await idOf('Odo Quill'));
    expect(await startRun(owner.deps, id, CERTIFIED)).toBe(1);
  });

  test('goes on at once where the office asks nobody; to set that off wants a second person itself', async () => {
    const id = await office('restore');
    await letIn(timed(made.ledger), 'Una Fell', 'owner', owner.deps).catch(() => null);
    expect(await setSecondPerson(owner.deps, false)).toMatchObject({ code: 'second-person-needed' });
    const una = await depsOf('Una Fell');
    expect(await settleConfirmation(una, await firstId(), 'confirm')).toContain('done');
    expect(await startRun(trader.deps, id, CERTIFIED)).toBe(1);
  });
});

/** Somebody who is invited comes in by another link. */
async function letInAgain(name: string): Promise<void> {
  const { token } = unrefused(await inviteAgain(owner.deps, await idOf(name)));
  await comeInBy(timed(made.ledger), token);
}

const depsOf = async (name: string): Promise<Deps> => {
  const who = (await members(made.ledger)).find((one) => one.name === name);
  if (!who) throw new Error(`${name} is not there`);
  return { ...made.ledger, who };
};

describe('a limit of a month', () => {
  // What the practice registrar asks for a year of a .com.
  const PRICE = 1138;

  test('is spent to the cent alone, and what was spent stands beside who spent it', async () => {
    const id = await office('renew', PRICE);
    expect(await startRun(trader.deps, id)).toBe(1);
    expect(await carryOutRun(made.ledger, id)).toEqual({ settled: 1, left: 0 });
    const { rows } = await made.ledger.database.query(
      'select p.name, s.amount_minor as minor, s.command from person_spending s join people p on p.id = s.person_id',
    );
    expect(rows).toEqual([{ name: 'Odo Quill', minor: PRICE, command: 'startRun' }]);
  });

  test('what is refused after all has cost nothing of it, confirmed or not', async () => {
    const id = await office('renew', PRICE);
    const other = await made.plan([NAME], 'renew');
    await priceRun(made.ledger, other);
    // The same name is on its way by another run.
    expect(await startRun(owner.deps, other)).toBe(1);
    for (let i = 0; i < 3; i += 1) expect(await startRun(trader.deps, id)).toMatchObject({ code: 'change-under-way' });
    const spent = async () =>
      (await made.ledger.database.query('select person_id from person_spending')).rows.map(
        (row) => (row as { person_id: number }).person_id,
      );
    expect(await spent()).toEqual([await idOf('Ilsa Tarn')]);
    await changeMember(owner.deps, await idOf('Odo Quill'), { role: 'trader', monthlyLimitMinor: PRICE - 1 });
    trader = { ...trader, deps: await depsOf('Odo Quill') };
    expect(await startRun(trader.deps, id)).toMatchObject({ code: 'second-person-needed' });
    expect(await settleConfirmation(owner.deps, await firstId(), 'confirm')).toMatchObject({
      code: 'change-under-way',
    });
    expect(await spent()).toEqual([await idOf('Ilsa Tarn')]);
  });

  test('a run that is on its way already costs nothing once more', async () => {
    const id = await office('renew', PRICE);
    expect(await startRun(trader.deps, id)).toBe(1);
    expect(await startRun(trader.deps, id)).toBe(0);
    const { rows } = await made.ledger.database.query('select amount_minor as minor from person_spending');
    expect(rows).toEqual([{ minor: PRICE }]);
  });

  test('a cent above it waits; confirmed, it counts as his', async () => {
    const id = await office('renew', PRICE - 1);
    expect(await startRun(trader.deps, id)).toMatchObject({ code: 'second-person-needed' });
    expect(await settleConfirmation(owner.deps, await firstId(), 'confirm')).toBe(`Renew ${NAME}: done.`);
    const { rows } = await made.ledger.database.query('select amount_minor as minor from person_spending');
    expect(rows).toEqual([{ minor: PRICE }]);
  });

  test('two commands of the same moment do not both fit into it', async () => {
    const id = await office('renew', PRICE);
    const both = await Promise.all([startRun(trader.deps, id), startRun(trader.deps, id)]);
    const { rows } = await made.ledger.database.query<{ spent: number }>(
      'select sum(amount_minor)::int as spent from person_spending',
    );
    expect(rows[0]?.spent).toBe(PRICE);
    expect(both.filter((answer) => answer === 1)).toHaveLength(1);
  });

  test('begins anew with the month of the office', async () => {
    await office('renew', PRICE);
    const spender = await idOf('Odo Quill');
    const spend = (at: string) =>
      made.ledger.database.query(
        "insert into person_spending (person_id, at, amount_minor, command) values ($1, $2, 1138, 'startRun')",
        [spender, at],
      );
    await made.ledger.database.query(`insert into settings (key, value) values ('zone', '"Pacific/Auckland"')
      on conflict (key) do update set value = excluded.value`);
    // In Auckland November begins at 11:00 UTC of the last day of October.
    await spend('2026-10-31T10:59:59Z');
    const id = await made.plan([NAME], 'renew');
    await priceRun(made.ledger, id);
    expect(await startRun(trader.deps, id)).toBe(1);
  });

  test('another owner is invited only with a second person, as somebody is made one', async () => {
    await office('renew');
    unrefused(await invite(owner.deps, { name: 'Una Fell', role: 'owner' }));
    await letInAgain('Una Fell');
    expect(await invite(owner.deps, { name: 'Ben Marl', role: 'owner' })).toMatchObject({
      code: 'second-person-needed',
    });
    unrefused(await invite(owner.deps, { name: 'Cal Dory', role: 'trader' }));
  });

  test('is raised only with a second person', async () => {
    await office('renew', PRICE);
    const una = await letIn(timed(made.ledger), 'Una Fell', 'owner', owner.deps).catch(() => null);
    expect(una).not.toBeNull();
    const id = await idOf('Odo Quill');
    expect(await changeMember(owner.deps, id, { role: 'trader' })).toMatchObject({ code: 'second-person-needed' });
    expect(await changeMember(owner.deps, id, { role: 'trader', monthlyLimitMinor: PRICE + 1 })).toMatchObject({
      code: 'second-person-needed',
    });
    expect(await changeMember(owner.deps, id, { role: 'trader', monthlyLimitMinor: PRICE - 1 })).toBe(true);
    expect(await changeMember(owner.deps, id, { role: 'owner', monthlyLimitMinor: 1 })).toMatchObject({
      code: 'second-person-needed',
    });
  });
});

test('what was booked for somebody stands under his name', async () => {
  const id = await office('renew');
  expect(await startRun(trader.deps, id)).toBe(1);
  await carryOutRun(made.ledger, id);
  const { rows } = await made.ledger.database.query('select person from renewals where id = $1', [id]);
  expect(rows).toEqual([{ person: 'Odo Quill' }]);
  expect(await entries()).toEqual([{ person: 'Odo Quill' }]);
  const [nameId] = (await made.ledger.database.query<{ id: number }>('select id from names')).rows;
  expect(nameId?.id).toBeGreaterThan(0);
  const page = unrefused(await historyPage(made.ledger, new URLSearchParams()));
  expect(page.map(({ person }) => person)).toContain('Odo Quill');
});
