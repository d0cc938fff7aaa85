import { expect, test } from 'vitest';
import { eppLink } from '@/connectors/registrar/eppLink';
import { addDays, addYears, instant } from '@/core/time';
import { openDatabase } from '@/database/pool';
import type { Deps } from '@/usecases/deps';
import { carryOutRun } from '@/usecases/orders/carryOut';
import { runProgress, startRun } from '@/usecases/orders/start';
import { chanceFrom } from '../../practice/scenario/chance';
import { Cables } from './cables';
import { TODAY } from './ledger';
import { type LinkedLedger, linkedLedger } from './practice';

const END = instant('2026-12-09T10:15:00Z');
/** A few here; `npm run soak` runs all: 260 names, 200 kills. */
const NAMES = Array.from({ length: process.env.SOAK ? 260 : 60 }, (_, i) => `kelpkiln${i}.com`);
const KILLS = process.env.SOAK ? 200 : 40;

const REPORT = { reason: 'The holder missed the end of the term.', certified: true };

/**
 * Carries a run out in a process that is killed again and again: its cables to the database and to the registrar are cut
 * together after a random number of pieces, so that kills fall into every step, orders and answers on their way included.
 */
async function killAgainAndAgain({ ledger, practice }: LinkedLedger, id: string): Promise<void> {
  const chance = chanceFrom(4711);
  let kills = 0;
  let lives = 0;
  while ((await runProgress(ledger, id)).items.some((item) => item.state !== 'done') && lives < 3000) {
    lives += 1;
    const cables = new Cables();
    const url = new URL(ledger.url);
    url.port = String(await cables.to(Number(url.port)));
    const port = await cables.to(practice.ports.quaymark ?? 0);
    const database = openDatabase(url.toString(), () => undefined, { max: 4 });
    const links: Deps['links'] = new Map();
    const process: Deps = {
      ...ledger,
      database,
      links,
      connect: (address) => eppLink({ ...address, port }, { timeoutMs: 400, sessions: 1 }),
    };
    if (kills < KILLS) cables.cutAfter(1 + chance.whole(40));
    await carryOutRun(process, id).catch(() => null);
    if (cables.cut) kills += 1;
    await cables.close();
    for (const { link } of links.values()) await link.close();
    await database.end();
  }
  expect(kills).toBeGreaterThanOrEqual(KILLS);
  const { items } = await runProgress(ledger, id);
  expect(items.filter((item) => item.state !== 'done')).toEqual([]);
}

const booked = async ({ ledger }: LinkedLedger) =>
  (
    await ledger.database.query(
      'select count(*) as n, count(distinct name_id) as names, sum(minor) as paid from entries',
    )
  ).rows;

test(`a run killed ${KILLS} times renews every name once, and the books agree`, async () => {
  const made = await linkedLedger(NAMES, END);
  const { ledger, world } = made;
  const customer = world.customers.get('quaymark');
  if (customer) customer.balanceMinor = 1138 * NAMES.length;
  const id = await made.plan(NAMES);
  expect(await startRun(ledger, id)).toBe(NAMES.length);
  await killAgainAndAgain(made, id);
  expect(world.receipts.filter((receipt) => receipt.action === 'renew')).toHaveLength(NAMES.length);
  expect([...world.domains.values()].filter((domain) => domain.paidThrough !== addYears(END, 1))).toEqual([]);
  expect(await booked(made)).toEqual([{ n: NAMES.length, names: NAMES.length, paid: 1138 * NAMES.length }]);
  expect(customer?.balanceMinor).toBe(0);
  await made.close();
}, 240_000);

test(`a restore killed ${KILLS} times pays for every name once, reports, and the books agree`, async () => {
  const end = addDays(TODAY, -60);
  const deleted = addDays(end, 45);
  const made = await linkedLedger(NAMES, end, { auto: 'off', state: 'redemption', since: deleted, deletedAt: deleted });
  const { ledger, world } = made;
  const each = 11_380 + 1138;
  const customer = world.customers.get('quaymark');
  if (customer) customer.balanceMinor = each * NAMES.length;
  const id = await made.plan(NAMES, 'restore');
  expect(await startRun(ledger, id, REPORT)).toBe(NAMES.length);
  await killAgainAndAgain(made, id);
  expect(world.receipts.filter((receipt) => receipt.action === 'restore')).toHaveLength(NAMES.length);
  expect(
    [...world.domains.values()].filter(
      ({ state, paidThrough }) => state !== 'registered' || paidThrough !== addYears(end, 1),
    ),
  ).toEqual([]);
  expect(await booked(made)).toEqual([{ n: NAMES.length, names: NAMES.length, paid: each * NAMES.length }]);
  expect(customer?.balanceMinor).toBe(0);
  await made.close();
}, 240_000);
