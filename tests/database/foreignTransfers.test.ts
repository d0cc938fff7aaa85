import { afterEach, describe, expect, test } from 'vitest';
import { addDays, instant } from '@/core/time';
import { pollEveryAccount } from '@/usecases/links/poll';
import { followTransfers } from '@/usecases/moving/follow';
import { foreignTransfers, rejectForeign, settleForeign } from '@/usecases/moving/foreign';
import { checkNow } from '@/usecases/records/check';
import { pointMailAt, pointRecordsAt } from '../../practice/scenario/links';
import { askedBySomebody } from '../../practice/world/transfers';
import type { Domain } from '../../practice/world/types';
import { TODAY } from './ledger';
import { movingLedger } from './moving';
import { type LinkedLedger, linkedLedger } from './practice';

const NAME = 'copperbuoy.com';
const END = instant('2027-06-09T10:15:00Z');

let made: LinkedLedger;
afterEach(() => made.close());
const begin = async (more: Partial<Domain> = {}) => {
  made = await linkedLedger([NAME], END, { auto: 'on', ...more });
  await pointMailAt(made.ledger.database, made.practice.mailPort, 'http://127.0.0.1:1');
  return made.ledger;
};
const domain = () => made.world.domains.get(NAME) as Domain;
const alarms = async () => foreignTransfers(made.ledger);
const askFor = async () => {
  askedBySomebody(made.world, NAME);
  await pollEveryAccount(made.ledger);
};

describe('a transfer that nobody here asked for', () => {
  test('is told by message: at once by mail, once, with who asks and until when; rejected, locked, its code changed', async () => {
    const ledger = await begin({ authInfo: 'a-code-that-got-out' });
    await askFor();
    const [alarm] = await alarms();
    expect(alarm).toMatchObject({ ascii: NAME, state: 'open', seenBy: 'message', actsBy: addDays(TODAY, 5) });
    expect(alarm?.requestedBy).toMatch(/-customer$/);
    await followTransfers(ledger);
    await followTransfers(ledger);
    expect(made.practice.mails.map(({ subject }) => subject)).toEqual([
      'copperbuoy.com: a transfer that nobody here asked for',
    ]);
    expect(await rejectForeign(ledger, alarm?.id ?? 0)).toBe(true);
    expect(domain()).toMatchObject({ registrar: 'quaymark', owner: 'office', lock: true, transfer: null });
    expect(domain().authInfo).not.toBe('a-code-that-got-out');
    expect(domain().authInfo.length).toBeGreaterThanOrEqual(24);
    expect(await alarms()).toEqual([]);
    const { rows } = await ledger.database.query('select lock, observed, gone_at as gone from names');
    expect(rows).toEqual([{ lock: true, observed: null, gone: null }]);
    // What the registrar tells of its end changes nothing more.
    await pollEveryAccount(ledger);
    expect(await alarms()).toEqual([]);
    expect(await rejectForeign(ledger, alarm?.id ?? 0)).toBe(true);
  });

  test('a rejection without an answer is carried on until it has one', async () => {
    const ledger = await begin();
    await askFor();
    const [alarm] = await alarms();
    made.practice.faults.set('quaymark', 'result lost', 1);
    expect(await rejectForeign(ledger, alarm?.id ?? 0)).toMatchObject({ code: 'link-failed' });
    expect((await alarms()).map(({ state }) => state)).toEqual(['rejecting']);
    await followTransfers(ledger);
    expect(await alarms()).toEqual([]);
    expect(domain()).toMatchObject({ registrar: 'quaymark', lock: true, transfer: null });
  });

  test('is seen in the registration record where no message tells of it, and is over once that no longer shows it', async () => {
    const ledger = await begin();
    await pointRecordsAt(ledger.database, made.practice.records);
    askedBySomebody(made.world, NAME);
    await checkNow(ledger, NAME);
    expect((await alarms()).map(({ state, seenBy }) => [state, seenBy])).toEqual([['open', 'record']]);
    domain().transfer = null;
    await checkNow(ledger, NAME);
    expect(await alarms()).toEqual([]);
  });

  test('one that goes through unanswered is told as gone, until somebody says that it is in order', async () => {
    const ledger = await begin();
    await askFor();
    await made.practice.passTo(addDays(TODAY, 6));
    ledger.setClock(addDays(TODAY, 6));
    await pollEveryAccount(ledger);
    const [alarm] = await alarms();
    expect(alarm?.state).toBe('gone');
    expect(await settleForeign(ledger, alarm?.id ?? 0, 'in order')).toBe(true);
    expect(await alarms()).toEqual([]);
  });

  test('a name that leaves without ever having been pending is as urgent', async () => {
    const ledger = await begin();
    askedBySomebody(made.world, NAME);
    made.world.messages.length = 0;
    await made.practice.passTo(addDays(TODAY, 6));
    ledger.setClock(addDays(TODAY, 6));
    await pollEveryAccount(ledger);
    expect((await alarms()).map(({ state }) => state)).toEqual(['gone']);
  });
});

test('a transfer of our own is no alarm, neither by message nor by record', async () => {
  const moving = await movingLedger([NAME], { end: END, isLosingLinked: true });
  made = moving;
  await pointRecordsAt(made.ledger.database, made.practice.records);
  made.practice.faults.set('quaymark', 'approval lost', 1);
  await followTransfers(made.ledger);
  expect((await moving.transfers())[0]?.stage).toBe('pending');
  await checkNow(made.ledger, NAME);
  await pollEveryAccount(made.ledger);
  expect(await alarms()).toEqual([]);
  await moving.pass(6);
  expect((await moving.transfers())[0]?.stage).toBe('looked after');
  expect(await alarms()).toEqual([]);
});
