import { type ListingLine, ListingTable } from '@/core/selling';
import { unpacked } from '@/core/table';
import { addDays, type Day, dayOf, formatInstant, type Instant } from '@/core/time';
import type { Deps } from '@/usecases/deps';
import { listingBytes } from '@/usecases/selling/listingTable';
import { type TestLedger, TODAY, usualAccount } from './ledger';

/** How a name came to be offered, and what became of it. */
export interface Written {
  readonly added?: Instant;
  readonly asking?: number | null;
  readonly tags?: readonly string[];
  readonly gone?: Instant;
}

/** An office that sells names, written straight into its tables: one account, a price of 12.00 for .com. */
export function offeringOffice(ledger: TestLedger) {
  const query = (sql: string, values: readonly unknown[] = []) => ledger.database.query(sql, [...values]);

  /** The account, with a balance; `null` for one that nobody knows. */
  async function begin(balanceMinor: number | null = 100_000): Promise<void> {
    await usualAccount(ledger, 'Quaymark', {
      balanceMinor,
      paymentMethods: [{ kind: 'balance', label: 'balance', endsMonth: null }],
    });
    await query(
      `insert into prices (account_id, ending, action, currency, year_minor, fee_included, from_day, origin) values (1, 'com', 'renew', 'USD', 1200, true, '2024-01-01', 'list')`,
    );
  }

  const batch = async (): Promise<number> =>
    (
      await query(
        "insert into batches (at, made_by, kind, summary) values (now(), 'office', 'test', 'test') returning id",
      )
    ).rows[0].id;

  /** A name that is renewed by itself in half a year, asked 1,000.00 for. Answers its id. */
  async function write(
    ascii: string,
    { added = addDays(TODAY, -730), asking = 100_000, tags = [], gone }: Written = {},
  ): Promise<number> {
    const { rows } = await query(
      `insert into names (ascii, unicode, ending, account_id, term_end, setting, purpose, asking_minor, asking_currency, tags, added_at, gone_at, added_batch)
       values ($1, $1, split_part($1, '.', 2), 1, $2, 'on', 'for sale', $3, case when $3::int8 is null then null else 'USD' end, $4, $5, $6, $7) returning id`,
      [
        ascii,
        formatInstant(addDays(TODAY, 180)),
        asking,
        tags,
        new Date(added),
        gone === undefined ? null : new Date(gone),
        await batch(),
      ],
    );
    return rows[0].id as number;
  }

  /** Money on a name; below nothing for what is received. */
  async function book(
    nameId: number,
    kind: string,
    minor: number,
    day: Day,
    saleId: number | null = null,
    currency = 'USD',
  ): Promise<void> {
    await query(
      'insert into entries (name_id, batch_id, on_day, kind, minor, currency, sale_id) values ($1, $2, $3, $4, $5, $6, $7)',
      [nameId, await batch(), day, kind, minor, currency, saleId],
    );
  }

  /** A sale that is done, booked with a commission of a tenth. */
  async function sell(nameId: number, minor: number, at: Instant): Promise<void> {
    const { rows } = await query(
      `insert into sales (name_id, how, buyer, price_minor, currency, stage, agreed_at, stage_since) values ($1, 'offer', 'Ann', $2, 'USD', 'done', $3, $3) returning id`,
      [nameId, minor, new Date(at)],
    );
    await book(nameId, 'sale', -minor, dayOf(at), rows[0].id);
    await book(nameId, 'commission', Math.round(minor * 0.1), dayOf(at), rows[0].id);
  }

  return { query, begin, write, book, sell };
}

/** Every listing as a window reads it: through the bytes that go to it. */
export async function listingLines(deps: Deps): Promise<ListingLine[]> {
  const bytes = await listingBytes(deps);
  const table = new ListingTable(unpacked(bytes.slice().buffer));
  return Array.from({ length: table.length }, (_, place) => table.line(place));
}
