import { expect, test } from 'vitest';
import { addYears, instant } from '@/core/time';
import { FAULTS } from '../../practice/epp/faults';
import { chanceFrom } from '../../practice/scenario/chance';
import { movingLedger } from './moving';

const END = instant('2027-09-09T10:15:00Z');
/** A few here; `npm run soak` runs all. */
const SEEDS = process.env.SOAK ? [1, 2, 3, 4, 5, 6, 7, 8] : [1, 2];
const NAMES = Array.from({ length: 30 }, (_, i) => `kelpkiln${i}.com`);
const PASSES = 40;

/** Faults that strike the commands of a transfer; the rest is of renewals and restores, or takes four seconds each time. */
const KINDS = FAULTS.filter((kind) => !['report refused', 'finished later', 'slow'].includes(kind));

test.each(SEEDS)(
  'whatever goes wrong at either registrar, a name is at one account, paid for once or paid back, and as it was (seed %i)',
  async (seed) => {
    const chance = chanceFrom(seed);
    const made = await movingLedger(NAMES, { end: END });
    const { world, practice, ledger, toId, accountId } = made;
    for (let pass = 0; pass < PASSES; pass += 1) {
      // Towards the end nothing more goes wrong, so that what is under way comes to its end.
      for (const registrar of ['quaymark', 'wrackgate'])
        practice.faults.set(registrar, pass < PASSES - 12 ? chance.pick(KINDS) : null, 1 + chance.whole(4));
      await made.pass(chance.whole(3));
    }
    const ends = new Map((await made.transfers()).map((one) => [one.ascii, one]));
    const { rows } = await ledger.database.query<{
      ascii: string;
      at: number;
      end: number;
      lock: boolean;
      setting: string;
    }>(
      'select ascii, account_id as at, term_end as end, lock, setting from names where gone_at is null order by ascii',
    );
    expect(rows).toHaveLength(NAMES.length);
    let moved = 0;
    for (const { ascii, at, end, lock, setting } of rows) {
      const domain = world.domains.get(ascii);
      const has = domain?.registrar === 'wrackgate';
      const receipts = world.receipts.filter(({ name }) => name === ascii);
      const paid = receipts.reduce((sum, { amountMinor }) => sum + amountMinor, 0);
      const once = receipts.filter(({ action }) => action === 'transfer').length;
      expect([ascii, ends.get(ascii)?.stage, at]).toEqual([
        ascii,
        has ? expect.stringMatching(/looked after|closed/) : 'given up',
        has ? toId : accountId,
      ]);
      expect([ascii, domain?.lock, lock, domain?.auto, setting]).toEqual([ascii, true, true, 'on', 'on']);
      expect([ascii, end, domain?.paidThrough]).toEqual([
        ascii,
        addYears(END, has ? 1 : 0),
        addYears(END, has ? 1 : 0),
      ]);
      expect([ascii, once <= 1, paid === 0]).toEqual([ascii, true, !has]);
      if (has) moved += 1;
    }
    expect(moved).toBeGreaterThan(0);
    const { rows: books } = await ledger.database.query<{ sum: number }>(
      "select coalesce(sum(case when kind = 'refund' then -minor else minor end), 0) as sum from entries",
    );
    expect(books[0]?.sum).toBe(world.receipts.reduce((sum, { amountMinor }) => sum + amountMinor, 0));
    await made.close();
  },
  240_000,
);
