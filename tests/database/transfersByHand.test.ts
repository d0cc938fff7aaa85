import { afterEach, describe, expect, test } from 'vitest';
import { addYears, instant } from '@/core/time';
import { countTransfersWaiting } from '@/database/transfers';
import { takeArrival } from '@/usecases/moving/arrival';
import { codeOfTransfer, tellTransfer } from '@/usecases/moving/byHand';
import { carryOnTransfers } from '@/usecases/moving/carryOn';
import { namesUnderWay, transfersUnderWay } from '@/usecases/moving/underWay';
import { blankDomain } from '../../practice/world/domain';
import { pushToOffice } from '../../practice/world/orders';
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
const stage = () => made.stages();
const row = (columns: string) => made.row(columns);
const entries = () => made.entries();
const onceMore = () => carryOnTransfers(made.ledger);

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

  test('where nothing was charged, nothing is waited for; what nobody knew of auto-renew nobody knows after it', async () => {
    const { ledger } = await begin({ isLosingLinked: false, isGainingLinked: false });
    await ledger.database.query("update transfers set stage = 'requested', setting_before = 'unknown'");
    const [first] = await made.transfers();
    await ledger.database.query('update transfers set charged_minor = 0');
    const tell = (what: string) => tellTransfer(ledger, { id: first?.id, what });
    expect(await tell('rejected')).toBe(true);
    expect(await tell('back as it was')).toBe(true);
    expect(await stage()).toEqual(['given up (rejected)']);
    expect(await row('setting, standing, lock')).toEqual({ setting: 'unknown', standing: 'believed', lock: true });
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
    expect(minor).toBeLessThan(shown?.quotedMinor ?? 0);
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
