import { expect, test } from 'vitest';
import { addDays, HOUR_MS } from '@/core/time';
import { TODAY } from './ledger';
import { awaiting, sellingDesk } from './marketplace';

const COPPER = 'copperbuoy.com';
const desk = sellingDesk([COPPER]);
const { begin, id } = desk;

/** The days of a review, an auction and the handover, one after the other: 3, 21 and 15. */
const SOLD_AFTER_DAYS = 3 + 21 + 15;
test.each([
  ['instant', -1, true],
  ['instant', 1, false],
  // A date alone may be over up to fourteen hours before it begins in UTC.
  ['day', 13, true],
  ['day', 15, false],
] as const)(
  'a term that ends as the sale would be handed over is told in time (%s, %i hours)',
  async (precision, hours, isTold) => {
    await begin();
    const { ledger, marketplaceId } = desk.made;
    const end = addDays(TODAY, SOLD_AFTER_DAYS) + hours * HOUR_MS;
    await ledger.database.query('update names set term_end = $2, term_end_day = $3 where id = $1', [
      id(COPPER),
      new Date(end),
      precision === 'day',
    ]);
    await ledger.database.query(
      `insert into listings (name_id, marketplace_id, kind, currency, start_minor, auction_days, status, made_at, sent_at)
     values ($1, $2, 'auction', 'USD', 10000, 21, 'live', $3, $3)`,
      [id(COPPER), marketplaceId, new Date(TODAY)],
    );
    const told = await awaiting(desk.made);
    expect(told.includes(`term too short: ${COPPER}`)).toBe(isTold);
  },
);
