import { type Handover, OVER_STAGES, type PastSale, type SaleStage } from '@/core/selling';
import type { Day, Instant } from '@/core/time';
import { oneOf, word } from './oneOf';
import type { Queryable, Transaction } from './pool';

const stage = word<SaleStage>;

/** A sale on its way, or behind us. */
export interface SaleRow {
  readonly id: number;
  readonly nameId: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly accountId: number;
  readonly account: string;
  readonly marketplaceId: number | null;
  readonly marketplace: string | null;
  readonly linked: boolean;
  readonly listingId: number | null;
  readonly figureId: number | null;
  readonly auctionId: number | null;
  readonly ref: string | null;
  readonly how: 'offer' | 'bid' | 'buy now';
  readonly buyer: string;
  readonly priceMinor: number;
  readonly currency: string;
  readonly stage: SaleStage;
  readonly agreedAt: Instant;
  readonly stageSince: Instant;
  readonly dueAt: Instant | null;
  readonly handover: Handover | null;
  readonly buyerAccount: string | null;
  /** Whether a code for its transfer is kept, sealed. */
  readonly hasCode: boolean;
  readonly handingOver: boolean;
  readonly commissionMinor: number | null;
  readonly feesMinor: number | null;
  readonly bookedBatch: number | null;
  readonly toTell: 'agreed' | 'refused' | 'handed over' | null;
  readonly note: string;
}

const SALE = `
  select s.id, s.name_id as "nameId", n.ascii, n."unicode", n.account_id as "accountId", a.label as account, s.marketplace_id as "marketplaceId",
    v.label as marketplace, v.link_url is not null as linked, s.listing_id as "listingId", s.figure_id as "figureId", s.auction_id as "auctionId",
    s.ref, s.how, s.buyer, s.price_minor as "priceMinor", s.currency, s.stage, s.agreed_at as "agreedAt", s.stage_since as "stageSince",
    s.due_at as "dueAt", s.handover, s.buyer_account as "buyerAccount", exists (select from transfers t where t.sale_id = s.id and t.code_sealed is not null) as "hasCode", s.handing_over as "handingOver",
    s.commission_minor as "commissionMinor", s.fees_minor as "feesMinor", s.booked_batch as "bookedBatch", s.to_tell as "toTell", s.note
  from sales s join names n on n.id = s.name_id join accounts a on a.id = n.account_id left join marketplaces v on v.id = s.marketplace_id`;

export async function selectSales(db: Queryable, which: 'open' | 'all' = 'all'): Promise<SaleRow[]> {
  const { rows } = await db.query<SaleRow>(
    `${SALE} where $1 = 'all' or s.stage not ${oneOf(OVER_STAGES)} order by s.agreed_at desc, s.id desc`,
    [which],
  );
  return rows;
}

export async function selectSale(db: Queryable, id: number): Promise<SaleRow | null> {
  return (await db.query<SaleRow>(`${SALE} where s.id = $1`, [id])).rows[0] ?? null;
}

export function selectSalesOf(db: Queryable, nameId: number): Promise<SaleRow[]> {
  return selectSalesOfNames(db, [nameId]);
}

/** Every sale of some names, the last first. */
export async function selectSalesOfNames(db: Queryable, nameIds: readonly number[]): Promise<SaleRow[]> {
  return (await db.query<SaleRow>(`${SALE} where s.name_id = any($1) order by s.id desc`, [nameIds])).rows;
}

export async function selectSaleByRef(db: Queryable, marketplaceId: number, ref: string): Promise<SaleRow | null> {
  return (
    (await db.query<SaleRow>(`${SALE} where s.marketplace_id = $1 and s.ref = $2`, [marketplaceId, ref])).rows[0] ??
    null
  );
}

export async function lockSale(tx: Transaction, id: number): Promise<SaleRow | null> {
  await tx.query('select 1 from sales where id = $1 for update', [id]);
  return selectSale(tx, id);
}

export interface SaleDraft {
  readonly nameId: number;
  readonly marketplaceId: number | null;
  readonly listingId: number | null;
  readonly figureId: number | null;
  readonly auctionId: number | null;
  readonly ref: string | null;
  readonly how: SaleRow['how'];
  readonly buyer: string;
  readonly priceMinor: number;
  readonly currency: string;
  readonly dueAt: Instant | null;
  readonly toTell: SaleRow['toTell'];
}

/** Commits a name to a buyer. `null` when it is promised or sold already, or no longer in the ledger: the database says so. */
export async function insertSale(tx: Transaction, sale: SaleDraft, at: Instant): Promise<number | null> {
  const { rows } = await tx.query<{ id: number }>(
    `insert into sales (name_id, marketplace_id, listing_id, figure_id, auction_id, ref, how, buyer, price_minor, currency, agreed_at, stage_since,
       due_at, to_tell)
     select n.id, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $11, $12, $13 from names n where n.id = $1 and n.gone_at is null
     on conflict do nothing returning id`,
    [
      sale.nameId,
      sale.marketplaceId,
      sale.listingId,
      sale.figureId,
      sale.auctionId,
      sale.ref,
      sale.how,
      sale.buyer,
      sale.priceMinor,
      sale.currency,
      new Date(at),
      sale.dueAt === null ? null : new Date(sale.dueAt),
      sale.toTell,
    ],
  );
  return rows[0]?.id ?? null;
}

/** Notes a purchase that was refused, which its marketplace has still to be told. */
export async function insertRefusedSale(
  tx: Transaction,
  sale: Pick<SaleDraft, 'nameId' | 'marketplaceId' | 'ref' | 'how' | 'buyer' | 'priceMinor' | 'currency'>,
  at: Instant,
  why: string,
): Promise<void> {
  await tx.query(
    `with refused as (
       insert into sales (name_id, marketplace_id, ref, how, buyer, price_minor, currency, stage, agreed_at, stage_since, to_tell, note)
       values ($1, $2, $3, $4, $5, $6, $7, ${stage('refused')}, $8, $8, ${stage('refused')}, $9) on conflict do nothing returning id)
     insert into sale_steps (sale_id, at, stage, origin, note) select id, $8, ${stage('refused')}, 'rule', $9 from refused`,
    [
      sale.nameId,
      sale.marketplaceId,
      sale.ref,
      sale.how,
      sale.buyer,
      sale.priceMinor,
      sale.currency,
      new Date(at),
      why,
    ],
  );
}

/** True while a sale was agreed at a marketplace whose own number of it has not been heard. */
export async function hasUnnamedSale(db: Queryable, marketplaceId: number): Promise<boolean> {
  const { rows } = await db.query(
    `select 1 from sales where marketplace_id = $1 and to_tell = ${stage('agreed')} and ref is null limit 1`,
    [marketplaceId],
  );
  return rows.length > 0;
}

/** Columns of a sale that change as it goes its way. */
export type SaleStep = Partial<
  Pick<
    SaleRow,
    | 'stage'
    | 'stageSince'
    | 'dueAt'
    | 'handover'
    | 'buyerAccount'
    | 'handingOver'
    | 'commissionMinor'
    | 'feesMinor'
    | 'bookedBatch'
    | 'toTell'
    | 'note'
    | 'ref'
  >
>;

const STEP: Readonly<Record<keyof SaleStep, string>> = {
  stage: 'stage',
  stageSince: 'stage_since',
  dueAt: 'due_at',
  handover: 'handover',
  buyerAccount: 'buyer_account',
  handingOver: 'handing_over',
  commissionMinor: 'commission_minor',
  feesMinor: 'fees_minor',
  bookedBatch: 'booked_batch',
  toTell: 'to_tell',
  note: 'note',
  ref: 'ref',
};
const INSTANTS = new Set<keyof SaleStep>(['stageSince', 'dueAt']);

export async function updateSale(db: Queryable, id: number, step: SaleStep): Promise<void> {
  const keys = Object.keys(step) as (keyof SaleStep)[];
  if (keys.length === 0) return;
  const values = keys.map((key) => {
    const value = step[key];
    return INSTANTS.has(key) && typeof value === 'number' ? new Date(value) : value;
  });
  await db.query(`update sales set ${keys.map((key, i) => `${STEP[key]} = $${i + 2}`).join(', ')} where id = $1`, [
    id,
    ...values,
  ]);
}

/** Decides on handing over. */
export async function beginHandover(db: Queryable, id: number): Promise<void> {
  await db.query(`update sales set handing_over = true where id = $1 and stage = ${stage('buyer known')}`, [id]);
}

export interface SaleStepRow {
  readonly at: Instant;
  readonly stage: SaleStage;
  readonly origin: 'by hand' | 'marketplace' | 'registrar' | 'record' | 'rule' | 'buyer';
  readonly note: string;
  /** Who of the office took it, by the name he had then. */
  readonly person: string | null;
}

export async function insertSaleStep(
  tx: Transaction,
  saleId: number,
  step: Omit<SaleStepRow, 'person'>,
): Promise<void> {
  await tx.query('insert into sale_steps (sale_id, at, stage, origin, note) values ($1, $2, $3, $4, $5)', [
    saleId,
    new Date(step.at),
    step.stage,
    step.origin,
    step.note,
  ]);
}

export async function selectSaleSteps(db: Queryable, saleId: number): Promise<SaleStepRow[]> {
  const { rows } = await db.query<SaleStepRow>(
    'select at, stage, origin, note, person from sale_steps where sale_id = $1 order by id',
    [saleId],
  );
  return rows;
}

/** Sales with something that their marketplace has still to be told. */
export async function selectUntoldSales(db: Queryable): Promise<SaleRow[]> {
  return (await db.query<SaleRow>(`${SALE} where s.to_tell is not null and v.link_url is not null order by s.id`)).rows;
}

/** Every past sale that names can be compared with: one's own that are done, and those that were told. */
export async function selectPastSales(db: Queryable): Promise<PastSale[]> {
  const { rows } = await db.query<PastSale>(
    `select n.ascii, json_build_object('minor', s.price_minor, 'currency', s.currency) as price, (s.agreed_at at time zone 'UTC')::date as day,
       coalesce(v.label, '') as marketplace, true as own
     from sales s join names n on n.id = s.name_id left join marketplaces v on v.id = s.marketplace_id where s.stage = ${stage('done')}
     union all
     select ascii, json_build_object('minor', minor, 'currency', currency), on_day, marketplace, false from comparables`,
  );
  return rows;
}

export async function insertComparables(
  tx: Transaction,
  sales: readonly { ascii: string; minor: number; currency: string; day: Day; marketplace: string }[],
): Promise<number> {
  const { rowCount } = await tx.query(
    `insert into comparables (ascii, minor, currency, on_day, marketplace)
     select ascii, minor, currency, day, marketplace from jsonb_to_recordset($1::jsonb) as c(ascii text, minor int8, currency text, day date, marketplace text)
     on conflict do nothing`,
    [JSON.stringify(sales)],
  );
  return rowCount ?? 0;
}
