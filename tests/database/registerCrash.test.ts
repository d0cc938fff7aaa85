import { expect, test } from 'vitest';
import { eppLink } from '@/connectors/registrar/eppLink';
import { openDatabase } from '@/database/pool';
import { carryOnRegistrations } from '@/usecases/acquiring/carryOn';
import { registrations } from '@/usecases/acquiring/register';
import type { Deps } from '@/usecases/deps';
import { chanceFrom } from '../../practice/scenario/chance';
import { unregistered } from '../../practice/world/unregistered';
import { acquiringLedger, agreeTo } from './acquiring';
import { Cables } from './cables';
import type { LinkedLedger } from './practice';

/** A few here; `npm run soak` runs all: 100 names, 200 kills. */
const COUNT = process.env.SOAK ? 100 : 25;
const KILLS = process.env.SOAK ? 200 : 40;
const NAMES = Array.from({ length: 300 }, (_, i) => `loft${i}kiln.com`)
  .filter((name) => unregistered(name).own === null && !unregistered(name).reserved)
  .slice(0, COUNT);

/** Carries registrations on in a process that is killed again and again, at the database and at the registrar together. */
async function killAgainAndAgain({ ledger, practice }: LinkedLedger): Promise<number> {
  const chance = chanceFrom(4711);
  let [kills, lives] = [0, 0];
  while ((await registrations(ledger)).open.length > 0 && lives < 3000) {
    lives += 1;
    const cables = new Cables();
    const url = new URL(ledger.url);
    url.port = String(await cables.to(Number(url.port)));
    const registrar = await cables.to(practice.ports.quaymark ?? 0);
    const database = openDatabase(url.toString(), () => undefined, { max: 4 });
    const links: Deps['links'] = new Map();
    const connect: Deps['connect'] = (address) =>
      eppLink({ ...address, port: registrar }, { timeoutMs: 400, sessions: 2 });
    if (kills < KILLS) cables.cutAfter(1 + chance.whole(60));
    await carryOnRegistrations({ ...ledger, database, links, connect }).catch(() => null);
    if (cables.cut) kills += 1;
    await cables.close();
    for (const { link } of links.values()) await link.close();
    await database.end();
  }
  return kills;
}

test(`registrations killed again and again (${KILLS} times): each name once, each paid once, each in the books once`, async () => {
  const made = await acquiringLedger();
  const { ledger, world } = made;
  const customer = world.customers.get('quaymark');
  if (customer) customer.balanceMinor = 10_000_000;
  await agreeTo(made, NAMES);
  expect(await killAgainAndAgain(made)).toBeGreaterThanOrEqual(KILLS);
  expect(world.receipts.map(({ action }) => action)).toEqual(NAMES.map(() => 'register'));
  expect(new Set(world.receipts.map(({ name }) => name))).toEqual(new Set(NAMES));
  const { rows } = await ledger.database.query(
    `select count(*) as n, count(distinct name_id) as names, sum(minor) as paid,
       (select count(*) from registrations where state = 'done') as done from entries where kind = 'registration'`,
  );
  expect(rows).toEqual([{ n: COUNT, names: COUNT, paid: 1138 * COUNT, done: COUNT }]);
  await made.close();
}, 240_000);
