import type { PaymentMethod } from '@/core/funding';
import type { LedgerAccount } from '@/core/ledger';
import type { Instant } from '@/core/time';
import type { Queryable } from './pool';

/** An account with all that Setup shows of it. */
export interface AccountRow extends LedgerAccount {
  readonly refunds: boolean;
  /** A name is transferred to it only once its zone has been loaded there. */
  readonly wantsZone?: boolean;
  /** In whose name it registers, and where the holder's mail goes; `null` where nobody has said. */
  readonly holder?: string | null;
  readonly holderMail?: string | null;
  readonly balanceAt: Instant | null;
  readonly rulesKnown: boolean;
  readonly notes: string;
}

/** What can be written about an account. */
export type AccountDraft = Omit<AccountRow, 'id' | 'linked'>;

const PAYMENT_METHODS = `
  coalesce((select jsonb_agg(jsonb_build_object('kind', kind, 'label', label, 'endsMonth', ends_month) order by position)
    from payment_methods where account_id = a.id), '[]')`;

const ACCOUNT = `
  select a.id, a.label, a.registrar, a.currency, a.lead_days as "leadDays", a.late_days as "lateDays", a.switch_hours as "switchHours",
    a.late_fee_minor as "lateFeeMinor", a.auction_day as "auctionDay", a.years_per_charge as "yearsPerCharge",
    a.retry_days as "retryDays", a.refunds, a.wants_zone as "wantsZone", a.holder, a.holder_mail as "holderMail", a.balance_minor as "balanceMinor", a.balance_at as "balanceAt",
    a.rules_known as "rulesKnown", a.notes, a.tax_percent as "taxPercent", a.link_host is not null as linked,
    ${PAYMENT_METHODS} as "paymentMethods"
  from accounts a`;

/** The accounts as the computation wants them: without what Setup alone shows. */
export async function selectLedgerAccounts(db: Queryable): Promise<LedgerAccount[]> {
  const { rows } = await db.query<LedgerAccount>(
    `select a.id, a.label, a.registrar, a.currency, a.lead_days as "leadDays", a.late_days as "lateDays", a.switch_hours as "switchHours",
       a.late_fee_minor as "lateFeeMinor", a.auction_day as "auctionDay", a.years_per_charge as "yearsPerCharge",
       a.retry_days as "retryDays", a.refunds, a.balance_minor as "balanceMinor", a.tax_percent as "taxPercent",
       a.link_host is not null as linked, ${PAYMENT_METHODS} as "paymentMethods"
     from accounts a order by lower(a.label)`,
  );
  return rows;
}

export async function selectAccounts(db: Queryable): Promise<AccountRow[]> {
  return (await db.query<AccountRow>(`${ACCOUNT} order by lower(a.label)`)).rows;
}

/** How many names accounts hold, by their ids; one that holds none is left out. Every name is looked at once. */
export async function countNames(db: Queryable): Promise<Map<number, number>> {
  const { rows } = await db.query<{ id: number; names: number }>(
    'select account_id as id, count(*) as names from names where gone_at is null group by account_id',
  );
  return new Map(rows.map(({ id, names }) => [id, names]));
}

export async function selectAccount(db: Queryable, id: number): Promise<AccountRow | null> {
  return (await db.query<AccountRow>(`${ACCOUNT} where a.id = $1`, [id])).rows[0] ?? null;
}

const FIELDS = `label = $2, registrar = $3, currency = $4, lead_days = $5, late_days = $6, late_fee_minor = $7, auction_day = $8,
  years_per_charge = $9, retry_days = $10, refunds = $11, balance_minor = $12, balance_at = $13, rules_known = $14, notes = $15, tax_percent = $16, switch_hours = $17, wants_zone = $18, holder = $19, holder_mail = $20`;

function values(draft: AccountDraft): unknown[] {
  const balanceAt = draft.balanceAt === null ? null : new Date(draft.balanceAt);
  return [
    draft.label,
    draft.registrar,
    draft.currency,
    draft.leadDays,
    draft.lateDays,
    draft.lateFeeMinor,
    draft.auctionDay,
    draft.yearsPerCharge,
    draft.retryDays,
    draft.refunds,
    draft.balanceMinor,
    balanceAt,
    draft.rulesKnown,
    draft.notes,
    draft.taxPercent,
    draft.switchHours,
    draft.wantsZone ?? false,
    draft.holder ?? null,
    draft.holderMail ?? null,
  ];
}

export async function insertAccount(db: Queryable, draft: AccountDraft, at: Instant): Promise<number> {
  const { rows } = await db.query<{ id: number }>(
    `insert into accounts (created_at, label, registrar, currency, lead_days, late_days, late_fee_minor, auction_day,
       years_per_charge, retry_days, refunds, balance_minor, balance_at, rules_known, notes, tax_percent, switch_hours, wants_zone, holder, holder_mail)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19, $20) returning id`,
    [new Date(at), ...values(draft)],
  );
  const id = rows[0]?.id as number;
  await replacePaymentMethods(db, id, draft.paymentMethods);
  return id;
}

export async function updateAccount(db: Queryable, id: number, draft: AccountDraft): Promise<void> {
  await db.query(`update accounts set ${FIELDS} where id = $1`, [id, ...values(draft)]);
  await replacePaymentMethods(db, id, draft.paymentMethods);
}

async function replacePaymentMethods(
  db: Queryable,
  accountId: number,
  paymentMethods: readonly PaymentMethod[],
): Promise<void> {
  await db.query('delete from payment_methods where account_id = $1', [accountId]);
  await db.query(
    `insert into payment_methods (account_id, position, kind, label, ends_month)
     select $1, place, value->>'kind', value->>'label', value->>'endsMonth' from jsonb_array_elements($2::jsonb) with ordinality as m(value, place)`,
    [accountId, JSON.stringify(paymentMethods)],
  );
}

/** What an account pays from, and its balance where it was said. */
export interface AccountMeans {
  readonly accountId: number;
  readonly paymentMethods: readonly PaymentMethod[];
  /** Minor units of the account's currency; `null` leaves it as it is. */
  readonly balanceMinor: number | null;
}

/** Writes what several accounts pay from. Answers how many of them there are. */
export async function updateMeans(db: Queryable, means: readonly AccountMeans[], at: Instant): Promise<number> {
  const said = JSON.stringify(means);
  const { rowCount } = await db.query(
    `update accounts a set balance_minor = coalesce(m."balanceMinor", a.balance_minor),
       balance_at = case when m."balanceMinor" is null then a.balance_at else $2 end
     from jsonb_to_recordset($1::jsonb) as m("accountId" int, "balanceMinor" bigint) where a.id = m."accountId"`,
    [said, new Date(at)],
  );
  await db.query('delete from payment_methods where account_id = any($1::int[])', [
    means.map(({ accountId }) => accountId),
  ]);
  await db.query(
    `insert into payment_methods (account_id, position, kind, label, ends_month)
     select m."accountId", place, value->>'kind', value->>'label', value->>'endsMonth'
     from jsonb_to_recordset($1::jsonb) as m("accountId" int, "paymentMethods" jsonb)
       join accounts on accounts.id = m."accountId", jsonb_array_elements(m."paymentMethods") with ordinality as e(value, place)`,
    [said],
  );
  return rowCount ?? 0;
}

/** Deletes an account that holds no name. Answers whether it did. */
export async function deleteEmptyAccount(db: Queryable, id: number): Promise<boolean> {
  const { rowCount } = await db.query(
    `delete from accounts where id = $1 and not exists (select from names where account_id = $1)
       and not exists (select from registrations where account_id = $1) and not exists (select from transfers where $1 in (from_account, to_account))`,
    [id],
  );
  return rowCount === 1;
}

/** Ids of the accounts with these labels, whatever their case; missing ones are made with the usual rules, as they are written first. */
export async function accountsByLabel(
  db: Queryable,
  labels: readonly string[],
  currency: string,
  at: Instant,
): Promise<Map<string, number>> {
  await db.query(
    `insert into accounts (label, registrar, currency, lead_days, late_days, created_at)
     select distinct on (lower(label)) label, label, $2, 5, 45, $3::timestamptz from unnest($1::text[]) with ordinality as l(label, place)
     order by lower(label), place
     on conflict (lower(label)) do nothing`,
    [labels, currency, new Date(at)],
  );
  const { rows } = await db.query<{ id: number; label: string }>(
    'select id, lower(label) as label from accounts where lower(label) in (select lower(l) from unnest($1::text[]) as l)',
    [labels],
  );
  return new Map(rows.map((row) => [row.label, row.id]));
}
