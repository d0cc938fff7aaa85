import { expect, test } from 'vitest';
import { eppLink } from '@/connectors/registrar/eppLink';
import { addYears, instant } from '@/core/time';
import { openDatabase } from '@/database/pool';
import type { Deps } from '@/usecases/deps';
import { carryOnTransfers } from '@/usecases/moving/carryOn';
import { chanceFrom } from '../../practice/scenario/chance';
import { Cables } from './cables';
import { type MovingLedger, movingLedger } from './moving';

const END = instant('2027-06-09T10:15:00Z');
/** A few here; `npm run soak` runs all: 120 names, 200 kills. */
const NAMES = Array.from({ length: process.env.SOAK ? 120 : 30 }, (_, i) => `kelpkiln${i}.com`);
const KILLS = process.env.SOAK ? 200 : 40;

/**
 * Carries transfers on in a process that is killed again and again: its cables to the database and to both registrars are cut together
 * after a random number of pieces, so that kills fall into every stage, requests and answers on their way included.
 */
async function killAgainAndAgain({ ledger, practice, transfers }: MovingLedger): Promise<number> {
  const chance = chanceFrom(815);
  let [kills, lives] = [0, 0];
  while ((await transfers()).some(({ stage }) => stage !== 'looked after') && lives < 3000) {
    lives += 1;
    const cables = new Cables();
    const url = new URL(ledger.url);
    url.port = String(await cables.to(Number(url.port)));
    const ports = new Map<number, number>();
    for (const port of Object.values(practice.ports)) ports.set(port, await cables.to(port));
    const database = openDatabase(url.toString(), () => undefined, { max: 4 });
    const links: Deps['links'] = new Map();
    const process: Deps = {
      ...ledger,
      database,
      links,
      connect: (address) =>
        eppLink({ ...address, port: ports.get(address.port) ?? address.port }, { timeoutMs: 400, sessions: 2 }),
    };
    if (kills < KILLS) cables.cutAfter(1 + chance.whole(60));
    await carryOnTransfers(process).catch(() => null);
    if (cables.cut) kills += 1;
    await cables.close();
    for (const { link } of links.values()) await link.close();
    await database.end();
  }
  return kills;
}

test(`transfers killed ${KILLS} times: each requested once, paid once, and at one account`, async () => {
  const made = await movingLedger(NAMES, { end: END });
  const { ledger, world, toId } = made;
  expect(await killAgainAndAgain(made)).toBeGreaterThanOrEqual(KILLS);
  const price = world.registrars.get('wrackgate')?.prices.com?.transfer ?? 0;
  expect(world.receipts.filter(({ action }) => action === 'transfer')).toHaveLength(NAMES.length);
  expect(world.receipts.filter(({ action }) => action !== 'transfer')).toEqual([]);
  expect(
    [...world.domains.values()].filter(
      ({ registrar, paidThrough, lock, auto }) =>
        registrar !== 'wrackgate' || paidThrough !== addYears(END, 1) || !lock || auto !== 'on',
    ),
  ).toEqual([]);
  const { rows } = await ledger.database.query(
    `select (select count(*) from names where account_id = $1 and term_end = $2) as there, count(*) as n, count(distinct name_id) as names, sum(minor) as paid from entries`,
    [toId, new Date(addYears(END, 1))],
  );
  expect(rows).toEqual([{ there: NAMES.length, n: NAMES.length, names: NAMES.length, paid: price * NAMES.length }]);
  await made.close();
}, 240_000);
