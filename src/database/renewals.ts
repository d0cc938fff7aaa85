import { type ItemState, OPEN_RUNS, type RunState, STARTABLE } from '@/core/orders';
import type { Day, Instant } from '@/core/time';
import { oneOf } from './oneOf';
import type { Queryable, Transaction } from './pool';

/** What a run does with each of its names. */
export type RunAction = 'renew' | 'restore';

/** What the owner certifies in the reports of a restore. */
export interface ReportWords {
  readonly reason: string;
  readonly other: string | null;
}

/** What takes something off: a code that the registrar knows, a percentage that the person knows of, or both. */
export interface PromotionWords {
  readonly code: string | null;
  readonly percent: number | null;
}

/** A run of renewals, by hand or over links, with the names it is for. */
export interface RenewalRow {
  readonly id: string;
  readonly idempotencyKey: string | null;
  readonly action: RunAction;
  /** `null` for a renewal. */
  readonly report: ReportWords | null;
  readonly status: RunState;
  readonly madeAt: Instant;
  readonly promotion: PromotionWords | null;
  /** What the person says of tax; `null` leaves it to each account. */
  readonly taxPercent: number | null;
  /** By which of its payment methods each account pays, by account; those not named pay in their usual order. */
  readonly payBy: Readonly<Record<string, string>>;
  /** Who started it, else who planned it, by the name he had then. */
  readonly person: string | null;
  readonly batchId: number | null;
  readonly undone: boolean;
  readonly items: readonly RenewalItemRow[];
  /** What it was quoted last, and for which state of the ledger on which day; `null` for one that never was. */
  readonly quoted: KeptQuote | null;
}

/** A quote as it was shown: what is started and confirmed is checked against it. */
export interface KeptQuote {
  readonly quote: unknown;
  readonly revision: number;
  readonly day: Day;
}

export interface RenewalItemRow {
  readonly nameId: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly years: number;
  readonly oldEnd: Instant;
  readonly newEnd: Instant | null;
  readonly quotedMinor: number | null;
  /** The tax within the quote. */
  readonly quotedTaxMinor: number | null;
  readonly currency: string | null;
  readonly chargedMinor: number | null;
  readonly chargedOn: Day | null;
  readonly paymentMethod: string | null;
  readonly reference: string | null;
  readonly done: boolean | null;
  /** How far an item has come that goes over a link; `planned` for one by hand. */
  readonly state: ItemState;
}

const RENEWAL = `
  select r.id, r.idempotency_key as "idempotencyKey", r.action, r.report, r.status, r.made_at as "madeAt", r.promotion, r.tax_percent as "taxPercent", r.pay_by as "payBy", r.person,
    r.batch_id as "batchId", exists (select from batches b where b.id = r.batch_id and b.undone_by is not null) as undone,
    coalesce((select jsonb_agg(jsonb_build_object('nameId', i.name_id, 'ascii', n.ascii, 'unicode', n."unicode", 'years', i.years,
      'oldEnd', (extract(epoch from i.old_end) * 1000)::int8, 'newEnd', (extract(epoch from i.new_end) * 1000)::int8,
      'quotedMinor', i.quoted_minor, 'quotedTaxMinor', i.quoted_tax_minor, 'currency', i.currency, 'chargedMinor', i.charged_minor, 'chargedOn', i.charged_on,
      'paymentMethod', i.payment_method, 'reference', i.reference, 'done', i.done, 'state', i.state) order by n.ascii)
      from renewal_items i join names n on n.id = i.name_id where i.renewal_id = r.id), '[]') as items,
    case when r.quote is not null then jsonb_build_object('quote', r.quote, 'revision', r.quoted_revision,
      'day', to_char(r.quoted_at at time zone 'UTC', 'YYYY-MM-DD')) end as quoted
  from renewals r`;

export async function selectRenewal(db: Queryable, id: string): Promise<RenewalRow | null> {
  return (await db.query<RenewalRow>(`${RENEWAL} where r.id = $1`, [id])).rows[0] ?? null;
}

export async function selectRenewalByKey(db: Queryable, key: string): Promise<RenewalRow | null> {
  return (await db.query<RenewalRow>(`${RENEWAL} where r.idempotency_key = $1`, [key])).rows[0] ?? null;
}

/** Renewals that are planned or requested and not yet confirmed, newest first. */
export async function selectOpenRenewals(db: Queryable): Promise<RenewalRow[]> {
  return (await db.query<RenewalRow>(`${RENEWAL} where r.status ${oneOf(OPEN_RUNS)} order by r.made_at desc limit 50`))
    .rows;
}

export async function countOpenRenewals(db: Queryable): Promise<number> {
  const { rows } = await db.query<{ n: number }>(`select count(*) as n from renewals where status ${oneOf(OPEN_RUNS)}`);
  return rows[0]?.n ?? 0;
}

/**
 * Binds an idempotency key to the request that it came with first. False when it came with another request: the same key never
 * means two things.
 */
export async function bindKey(db: Queryable, key: string, sha256: Buffer): Promise<boolean> {
  await db.query('update renewals set request_sha256 = $2 where idempotency_key = $1 and request_sha256 is null', [
    key,
    sha256,
  ]);
  const { rows } = await db.query<{ same: boolean }>(
    'select request_sha256 = $2 as same from renewals where idempotency_key = $1',
    [key, sha256],
  );
  return rows[0]?.same ?? true;
}

/** Writes a renewal, unless its idempotency key is taken. Answers whether it did. */
export async function insertRenewal(
  tx: Transaction,
  renewal: Omit<RenewalRow, 'batchId' | 'undone' | 'payBy' | 'quoted' | 'person'>,
): Promise<boolean> {
  const { rowCount } = await tx.query(
    `insert into renewals (id, idempotency_key, status, made_at, promotion, tax_percent, action, report) values ($1, $2, $3, $4, $5, $6, $7, $8)
     on conflict (idempotency_key) do nothing`,
    [
      renewal.id,
      renewal.idempotencyKey,
      renewal.status,
      new Date(renewal.madeAt),
      JSON.stringify(renewal.promotion),
      renewal.taxPercent,
      renewal.action,
      renewal.report === null ? null : JSON.stringify(renewal.report),
    ],
  );
  if (rowCount === 1) await writeItems(tx, renewal.id, renewal.items);
  return rowCount === 1;
}

/** Locks a renewal's row, so that two confirmations of it follow one another. */
export async function lockRenewal(tx: Transaction, id: string): Promise<RunState | null> {
  const { rows } = await tx.query<{ status: RunState }>('select status from renewals where id = $1 for update', [id]);
  return rows[0]?.status ?? null;
}

export async function updateRenewal(
  tx: Transaction,
  id: string,
  to: {
    status: RunState;
    batchId?: number | null;
    at?: Instant;
    promotion?: RenewalRow['promotion'];
    taxPercent?: number | null;
    payBy?: RenewalRow['payBy'];
  },
): Promise<void> {
  await tx.query(
    `update renewals set status = $2, batch_id = coalesce($3, batch_id), confirmed_at = coalesce($4, confirmed_at),
       promotion = case when $5::boolean then $6::jsonb else promotion end, tax_percent = case when $7::boolean then $8 else tax_percent end,
       pay_by = coalesce($9::jsonb, pay_by), person = coalesce(acting_person(), person) where id = $1`,
    [
      id,
      to.status,
      to.batchId ?? null,
      to.at ? new Date(to.at) : null,
      to.promotion !== undefined,
      JSON.stringify(to.promotion ?? null),
      to.taxPercent !== undefined,
      to.taxPercent ?? null,
      to.payBy === undefined ? null : JSON.stringify(to.payBy),
    ],
  );
}

/** Writes what the owner certifies in the reports of a restore, and when. */
export async function writeReport(tx: Transaction, id: string, report: ReportWords, certifiedAt: Instant | null) {
  await tx.query('update renewals set report = $2, certified_at = coalesce($3, certified_at) where id = $1', [
    id,
    JSON.stringify(report),
    certifiedAt === null ? null : new Date(certifiedAt),
  ]);
}

export async function writeItems(tx: Transaction, renewalId: string, items: readonly RenewalItemRow[]): Promise<void> {
  await tx.query(
    `insert into renewal_items (renewal_id, name_id, years, old_end, new_end, quoted_minor, quoted_tax_minor, currency, charged_minor, charged_on,
       payment_method, reference, done)
     select $1, "nameId", years, to_timestamp("oldEnd" / 1000.0), to_timestamp("newEnd" / 1000.0), "quotedMinor", "quotedTaxMinor", currency,
       "chargedMinor", "chargedOn", "paymentMethod", reference, done
     from jsonb_to_recordset($2::jsonb) as i("nameId" int, years int, "oldEnd" int8, "newEnd" int8, "quotedMinor" int8, "quotedTaxMinor" int8, currency text,
       "chargedMinor" int8, "chargedOn" date, "paymentMethod" text, reference text, done boolean)
     on conflict (renewal_id, name_id) do update set years = excluded.years, new_end = excluded.new_end, quoted_minor = excluded.quoted_minor,
       quoted_tax_minor = excluded.quoted_tax_minor, currency = excluded.currency, charged_minor = excluded.charged_minor, charged_on = excluded.charged_on, payment_method = excluded.payment_method,
       reference = excluded.reference, done = excluded.done`,
    [renewalId, JSON.stringify(items)],
  );
}

/** Forgets what registrars asked for items of these names that are still to be ordered: the price of another term or promotion says nothing. */
export async function forgetLivePrices(tx: Transaction, id: string, nameIds: readonly number[]): Promise<void> {
  await tx.query(
    `update renewal_items set live_minor = null, live_currency = null, problem = null
     where renewal_id = $1 and name_id = any($2) and state ${oneOf(STARTABLE)}`,
    [id, nameIds],
  );
}

/** Keeps a quote with its run, for the state of the ledger that it was made of. */
export async function keepQuote(
  db: Queryable,
  id: string,
  quote: object,
  revision: number,
  at: Instant,
): Promise<void> {
  await db.query('update renewals set quote = $2, quoted_revision = $3, quoted_at = $4 where id = $1', [
    id,
    JSON.stringify(quote),
    revision,
    new Date(at),
  ]);
}
