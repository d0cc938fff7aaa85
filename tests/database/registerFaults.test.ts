import { expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { addYears } from '@/core/time';
import { carryOnRegistrations } from '@/usecases/acquiring/carryOn';
import { registrations } from '@/usecases/acquiring/register';
import { pollEveryAccount } from '@/usecases/links/poll';
import type { FaultKind } from '../../practice/epp/faults';
import { chanceFrom } from '../../practice/scenario/chance';
import { unregistered } from '../../practice/world/unregistered';
import { acquiringLedger, agreeTo } from './acquiring';
import { TODAY } from './ledger';

/** A few here; `npm run soak` runs all. */
const SEEDS = process.env.SOAK ? [1, 2, 3, 4, 5, 6, 7, 8] : [1, 2];
const NAMES = Array.from({ length: 200 }, (_, i) => `cairn${i}loft.com`)
  .filter((name) => unregistered(name).own === null && !unregistered(name).reserved)
  .slice(0, 40);
const PASSES = 30;
const KINDS: readonly FaultKind[] = [
  'refused',
  'cut',
  'garbage',
  'duplicate',
  'busy',
  'result lost',
  'finished later',
  'somebody faster',
  'dearer',
];

test.each(SEEDS)(
  'whatever goes wrong at a registrar, a name is registered once and paid once, or not at all (seed %i)',
  async (seed) => {
    const chance = chanceFrom(seed);
    const made = await acquiringLedger();
    const { ledger, world, practice } = made;
    const customer = world.customers.get('quaymark');
    if (customer) customer.balanceMinor = 1_000_000;
    const run = await agreeTo(made, NAMES);
    expect(isRefusal(run)).toBe(false);
    for (let pass = 0; pass < PASSES; pass += 1) {
      // Towards the end nothing more goes wrong, so that what is under way comes to its end.
      practice.faults.set('quaymark', pass < PASSES - 8 ? chance.pick(KINDS) : null, 1 + chance.whole(6));
      if (chance.next() < 0.4) for (const { link } of ledger.links.values()) await link.close();
      await carryOnRegistrations(ledger);
      await pollEveryAccount(ledger);
    }
    const { open, settled } = await registrations(ledger);
    expect(open).toEqual([]);
    for (const { ascii, state, chargedMinor, receipt } of settled) {
      const domain = world.domains.get(ascii);
      const receipts = world.receipts.filter(({ name }) => name === ascii);
      const isOurs = domain?.owner === 'office';
      expect([ascii, state]).toEqual([ascii, isOurs ? 'done' : 'refused']);
      expect([ascii, receipts.length]).toEqual([ascii, isOurs ? 1 : 0]);
      if (isOurs) expect([ascii, chargedMinor, receipt]).toEqual([ascii, 1138, expect.any(String)]);
    }
    const done = settled.filter(({ state }) => state === 'done');
    expect(done.length).toBeGreaterThan(0);
    const { rows } = await ledger.database.query(
      `select (select count(*) from entries) as entries, (select coalesce(sum(minor), 0) from entries) as paid,
         (select count(*) from names where ascii like 'cairn%' and term_end = $1) as names`,
      [new Date(addYears(TODAY, 1))],
    );
    expect(rows).toEqual([{ entries: done.length, paid: done.length * 1138, names: done.length }]);
    expect(world.receipts.reduce((sum, { amountMinor }) => sum + amountMinor, 0)).toBe(done.length * 1138);
    await made.close();
  },
  240_000,
);
