import type { EntryKind } from '@/core/journal';
import type { Day } from '@/core/time';
import type { Queryable, Transaction } from './pool';

/** Money spent (positive) or received (negative) on a name. */
export interface EntryDraft {
  readonly nameId: number;
  readonly onDay: Day;
  readonly kind: EntryKind;
  readonly minor: number;
  readonly currency: string;
  readonly paymentMethod?: string;
  readonly reference?: string;
  readonly note?: string;
  readonly quotedMinor?: number | null;
  readonly corrects?: number | null;
  /** The sale that it belongs to; all others are what the name has cost. */
  readonly saleId?: number | null;
}

export interface EntryRow extends Required<EntryDraft> {
  readonly id: number;
  /** The counter-entry that takes this one back, or `null`. */
  readonly correctedBy: number | null;
  /** Who wrote it, by the name he had then; `null` where nobody had signed in, or the program did. */
  readonly person: string | null;
}

const ENTRY = `
  select e.id, e.name_id as "nameId", e.on_day as "onDay", e.kind, e.minor, e.currency, e.payment_method as "paymentMethod", e.reference, e.note,
    e.quoted_minor as "quotedMinor", e.corrects, e.sale_id as "saleId", c.id as "correctedBy", e.person
  from entries e left join entries c on c.corrects = e.id`;

export async function selectEntries(db: Queryable, nameId: number): Promise<EntryRow[]> {
  return (await db.query<EntryRow>(`${ENTRY} where e.name_id = $1 order by e.on_day, e.id`, [nameId])).rows;
}

export async function selectEntry(db: Queryable, id: number): Promise<EntryRow | null> {
  return (await db.query<EntryRow>(`${ENTRY} where e.id = $1`, [id])).rows[0] ?? null;
}

/** What names had cost when they were sold, entry by entry, by sale. */
export async function selectCostsOfSales(
  db: Queryable,
  saleIds: readonly number[],
): Promise<Map<number, Pick<EntryRow, 'minor' | 'currency' | 'onDay'>[]>> {
  const { rows } = await db.query<{ saleId: number; costs: Pick<EntryRow, 'minor' | 'currency' | 'onDay'>[] }>(
    `select s.id as "saleId", json_agg(json_build_object('minor', e.minor, 'currency', e.currency, 'onDay', e.on_day) order by e.on_day) as costs
     from sales s join spending e on e.name_id = s.name_id where s.id = any($1) group by s.id`,
    [saleIds],
  );
  return new Map(rows.map(({ saleId, costs }) => [saleId, costs]));
}

export async function insertEntries(tx: Transaction, batchId: number, entries: readonly EntryDraft[]): Promise<void> {
  await tx.query(
    `insert into entries (name_id, batch_id, on_day, kind, minor, currency, payment_method, reference, note, quoted_minor, corrects, sale_id)
     select "nameId", $1, "onDay", kind, minor, currency, coalesce("paymentMethod", ''), coalesce(reference, ''), coalesce(note, ''), "quotedMinor", corrects, "saleId"
     from jsonb_to_recordset($2::jsonb) as e("nameId" int, "onDay" date, kind text, minor int8, currency text, "paymentMethod" text, reference text,
       note text, "quotedMinor" int8, corrects int, "saleId" int)`,
    [batchId, JSON.stringify(entries)],
  );
}

/** Takes back every entry of a batch by a counter-entry. */
export async function counterEntries(tx: Transaction, batchId: number, undoId: number): Promise<void> {
  await tx.query(
    `insert into entries (name_id, batch_id, on_day, kind, minor, currency, note, corrects, sale_id)
     select name_id, $2, on_day, kind, -minor, currency, 'taken back', id, sale_id from entries e
     where batch_id = $1 and not exists (select from entries c where c.corrects = e.id)`,
    [batchId, undoId],
  );
}
