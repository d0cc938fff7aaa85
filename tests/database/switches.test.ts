import { afterEach, describe, expect, test } from 'vitest';
import { instant } from '@/core/time';
import { pollAccount } from '@/usecases/links/poll';
import { carryOutSwitches } from '@/usecases/links/switches';
import { confirmSwitch, editNames, requestSwitch } from '@/usecases/names/edit';
import { undo } from '@/usecases/names/undo';
import { compareTerms } from '@/usecases/orders/compareTerms';
import { confirmMail, letDaysPass } from '../../practice/world/days';
import { askToConfirmMail } from '../../practice/world/telling';
import { type LinkedLedger, linkedLedger } from './practice';

const END = instant('2027-06-09T10:15:00Z');
const NAMES = ['copperbuoy.com', 'larchpilot.com'] as const;
const DAY = 86_400_000;

let made: LinkedLedger;
afterEach(() => made.close());
const standing = async () =>
  (
    await made.ledger.database.query(
      'select ascii, setting, standing, lock, privacy, requested, requested_lock, requested_privacy from names order by ascii',
    )
  ).rows;
const nameIds = () => [...made.ids.values()];

describe('switching at a registrar', () => {
  test('lock and privacy are asked, sent over the link, and confirmed by the answer', async () => {
    made = await linkedLedger(NAMES, END);
    const { ledger, world } = made;
    await requestSwitch(ledger, { nameIds: nameIds(), what: 'lock', to: 'on' });
    await requestSwitch(ledger, { nameIds: nameIds(), what: 'privacy', to: 'on' });
    expect(await standing()).toMatchObject([
      { lock: null, requested_lock: true, privacy: null, requested_privacy: true },
      { lock: null, requested_lock: true, privacy: null, requested_privacy: true },
    ]);
    expect(await carryOutSwitches(ledger)).toEqual({ confirmed: 2, problems: [] });
    expect(await standing()).toMatchObject([
      { lock: true, requested_lock: null, privacy: true, requested_privacy: null },
      { lock: true, requested_lock: null, privacy: true, requested_privacy: null },
    ]);
    expect([...world.domains.values()].map(({ lock, privacy }) => [lock, privacy])).toEqual([
      [true, true],
      [true, true],
    ]);
    expect(await carryOutSwitches(ledger)).toEqual({ confirmed: 0, problems: [] });
  });

  test('what the registrar refuses is taken back, and says why', async () => {
    made = await linkedLedger(NAMES, END);
    const { ledger, world } = made;
    world.domains.delete('larchpilot.com');
    await requestSwitch(ledger, { nameIds: nameIds(), what: 'auto-renew', to: 'off' });
    const { confirmed, problems } = await carryOutSwitches(ledger);
    expect(confirmed).toBe(1);
    expect(problems).toMatchObject([{ name: 'larchpilot.com' }]);
    expect(await standing()).toMatchObject([
      { ascii: 'copperbuoy.com', setting: 'off', standing: 'confirmed', requested: null },
      { ascii: 'larchpilot.com', setting: 'on', requested: null },
    ]);
  });

  test('by hand: confirmed with what was seen, and taken back by undo', async () => {
    made = await linkedLedger(NAMES, END);
    const { ledger } = made;
    const done = await confirmSwitch(ledger, {
      nameIds: nameIds(),
      what: 'lock',
      setting: 'on',
      evidence: 'list of names, 10:40',
    });
    expect(done).toMatchObject({ changed: 2, summary: 'Confirmed lock on on 2 names' });
    if (!('batchId' in done) || done.batchId === null) throw new Error('nothing was done');
    await undo(ledger, done.batchId);
    expect(await standing()).toMatchObject([{ lock: null }, { lock: null }]);
    expect(
      await confirmSwitch(ledger, { nameIds: nameIds(), what: 'lock', setting: 'stalled', evidence: 'seen' }),
    ).toMatchObject({ code: 'switch-invalid' });
  });
});

test('a holder’s mail to confirm: told by message, told again when it is done, or set by hand', async () => {
  made = await linkedLedger(NAMES, END);
  const { ledger, world, accountId } = made;
  const deadlines = async () =>
    (await ledger.database.query('select confirm_mail_by as by from names order by ascii')).rows.map((row) => row.by);
  const [first, second] = [...world.domains.values()];
  if (!first || !second) throw new Error('two names are held');
  askToConfirmMail(world, first, world.now);
  askToConfirmMail(world, second, world.now);
  await pollAccount(ledger, accountId);
  const by = world.now + 15 * DAY;
  expect((await deadlines()).map(Number)).toEqual([by, by]);
  confirmMail(world, first.name);
  await letDaysPass(world, by + DAY);
  expect([first.hold, second.hold]).toEqual([false, true]);
  await pollAccount(ledger, accountId);
  expect((await deadlines()).map((at) => (at === null ? null : Number(at)))).toEqual([null, by]);
  const [, secondId] = nameIds();
  await editNames(ledger, { nameIds: [secondId], edit: { mailConfirmed: true } });
  expect(await deadlines()).toEqual([null, null]);
  await editNames(ledger, { nameIds: [secondId], edit: { confirmMailBy: '2026-12-09' } });
  expect((await deadlines())[1]).toEqual(Date.parse('2026-12-10T00:00:00Z'));
});

test('several years today beside one: what can be bought for both is summed, the rest is left out', async () => {
  made = await linkedLedger(NAMES, END);
  const id = await made.plan(NAMES);
  expect(await compareTerms(made.ledger, id, 5)).toEqual({
    years: 5,
    names: 2,
    leftOut: 0,
    sums: [
      {
        now: { minor: 2 * 5 * 1138, currency: 'USD' },
        yearly: { minor: 2 * 1138, currency: 'USD' },
        later: { minor: 2 * 1138, currency: 'USD' },
      },
    ],
    pastRise: null,
  });
  // A term of ten years on top of what is left would pass the ceiling of ten years ahead.
  expect(await compareTerms(made.ledger, id, 10)).toMatchObject({ names: 0, leftOut: 2, sums: [] });
  expect(await compareTerms(made.ledger, id, 1)).toMatchObject({ years: 1, names: 2 });
  expect(await compareTerms(made.ledger, id, 11)).toMatchObject({ code: 'years-out-of-range' });
});
