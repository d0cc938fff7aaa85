import type { PaymentMethod } from '@/core/funding';
import { USUAL_SWITCH_HOURS } from '@/core/ledger';
import type { Amount } from '@/core/money';
import type { Instant } from '@/core/time';
import type { Queryable } from './pool';

/** The link of an account, as it may be shown: never with its secret. */
export interface LinkRow {
  readonly accountId: number;
  readonly host: string;
  readonly port: number;
  readonly login: string;
  readonly readAt: Instant | null;
  readonly polledAt: Instant | null;
  readonly problem: string | null;
}

const LINK = `select id as "accountId", link_host as host, link_port as port, link_login as login, link_read_at as "readAt",
  link_polled_at as "polledAt", coalesce(link_problem, (select p.problem from partner_pauses p where p.kind = 'account' and p.partner_id = accounts.id)) as problem
  from accounts where link_host is not null`;

export async function selectLinks(db: Queryable): Promise<LinkRow[]> {
  return (await db.query<LinkRow>(`${LINK} order by id`)).rows;
}

export async function selectLink(db: Queryable, accountId: number): Promise<LinkRow | null> {
  return (await db.query<LinkRow>(`${LINK} and id = $1`, [accountId])).rows[0] ?? null;
}

export async function selectLinkSecret(db: Queryable, accountId: number): Promise<Buffer | null> {
  const { rows } = await db.query<{ secret: Buffer | null }>(
    'select link_secret as secret from accounts where id = $1',
    [accountId],
  );
  return rows[0]?.secret ?? null;
}

/** Sets an account's link, or takes it away. Answers whether the account is there. */
export async function updateLink(
  db: Queryable,
  accountId: number,
  link: { readonly host: string; readonly port: number; readonly login: string; readonly secret: Buffer } | null,
): Promise<boolean> {
  const { rowCount } = await db.query(
    `update accounts set link_host = $2, link_port = $3, link_login = $4, link_secret = $5, link_problem = null,
       link_read_at = null, link_polled_at = null where id = $1`,
    [accountId, link?.host ?? null, link?.port ?? null, link?.login ?? null, link?.secret ?? null],
  );
  return rowCount === 1;
}

/** Notes when a link was last used, and what went wrong. */
export async function noteLink(
  db: Queryable,
  accountId: number,
  note: { readonly readAt?: Instant; readonly polledAt?: Instant; readonly problem: string | null },
): Promise<void> {
  await db.query(
    `update accounts set link_read_at = coalesce($2, link_read_at), link_polled_at = coalesce($3, link_polled_at),
       link_problem = $4 where id = $1`,
    [
      accountId,
      note.readAt === undefined ? null : new Date(note.readAt),
      note.polledAt === undefined ? null : new Date(note.polledAt),
      note.problem,
    ],
  );
}

/**
 * Notes what the registrar's own answer says of the ends of names it holds: evidence beside the ledger, which it does not change.
 * Written only where it says something new, or the first time since the end of a term.
 */
export async function noteToldEnds(
  db: Queryable,
  accountId: number,
  told: readonly { readonly ascii: string; readonly end: Instant }[],
  at: Instant,
): Promise<void> {
  await db.query(
    `update names n set told_end = to_timestamp(t."end" / 1000.0), told_at = $3
     from jsonb_to_recordset($2::jsonb) as t(ascii text, "end" float8)
     where n.ascii = t.ascii and n.account_id = $1
       and (n.told_end is distinct from to_timestamp(t."end" / 1000.0) or (n.term_end <= $3 and (n.told_at is null or n.told_at < n.term_end)))`,
    [accountId, JSON.stringify(told), new Date(at)],
  );
}

/** Takes over what the registrar says of the account itself: balance, payment methods, and the rules it charges by. */
export async function takeOverHolding(
  db: Queryable,
  accountId: number,
  at: Instant,
  told: {
    readonly balance: Amount | null;
    readonly paymentMethods: readonly PaymentMethod[];
    readonly rules: {
      readonly leadDays: number | null;
      readonly lateDays: number | null;
      readonly lateFeeMinor: number | null;
      readonly yearsPerCharge: number | null;
      readonly retryDays: readonly number[] | null;
      readonly auctionDay: number | null;
      readonly taxPercent: number | null;
    } | null;
  },
): Promise<void> {
  const { rules } = told;
  await db.query(
    `update accounts set balance_minor = coalesce($2, balance_minor), balance_at = case when $2::bigint is null then balance_at else $3 end,
       lead_days = coalesce($4, lead_days), late_days = coalesce($5, late_days), late_fee_minor = coalesce($6, case when currency = coalesce($12, currency) then late_fee_minor else 0 end),
       years_per_charge = coalesce($7, years_per_charge), retry_days = coalesce($8, retry_days),
       auction_day = case when $9 then $10::int else auction_day end, tax_percent = coalesce($11, tax_percent),
       rules_known = rules_known or $9, currency = coalesce($12, currency)
     where id = $1`,
    [
      accountId,
      told.balance?.minor ?? null,
      new Date(at),
      rules?.leadDays ?? null,
      rules?.lateDays ?? null,
      rules?.lateFeeMinor ?? null,
      rules?.yearsPerCharge ?? null,
      rules?.retryDays ?? null,
      rules !== null,
      rules?.auctionDay ?? null,
      rules?.taxPercent ?? null,
      // The account's amounts are all in the currency that the registrar tells its balance in.
      told.balance?.currency ?? null,
    ],
  );
  if (told.paymentMethods.length === 0) return;
  await db.query('delete from payment_methods where account_id = $1', [accountId]);
  await db.query(
    `insert into payment_methods (account_id, position, kind, label, ends_month)
     select $1, place, value->>'kind', value->>'label', value->>'endsMonth' from jsonb_array_elements($2::jsonb) with ordinality as m(value, place)`,
    [accountId, JSON.stringify(told.paymentMethods)],
  );
}

/** The balance that an answer of the registrar named. One in another currency than the account's is left out: it is no balance of it. */
export async function updateBalance(db: Queryable, accountId: number, balance: Amount, at: Instant): Promise<void> {
  await db.query('update accounts set balance_minor = $2, balance_at = $3 where id = $1 and currency = $4', [
    accountId,
    balance.minor,
    new Date(at),
    balance.currency,
  ]);
}

/** A registrar's message, as it is kept. */
export interface MessageDraft {
  readonly accountId: number;
  readonly messageId: string;
  readonly receivedAt: Instant;
  readonly toldAt: Instant | null;
  readonly kind: string | null;
  readonly name: string | null;
  readonly text: string;
  readonly raw: string;
}

/** Stores a message, unless it is here already. Answers whether it is new. */
export async function insertMessage(db: Queryable, message: MessageDraft): Promise<boolean> {
  const { rowCount } = await db.query(
    `insert into registrar_messages (account_id, message_id, received_at, told_at, kind, name, text, raw)
     values ($1, $2, $3, $4, $5, $6, $7, $8) on conflict do nothing`,
    [
      message.accountId,
      message.messageId,
      new Date(message.receivedAt),
      message.toldAt === null ? null : new Date(message.toldAt),
      message.kind,
      message.name,
      message.text,
      message.raw,
    ],
  );
  return rowCount === 1;
}

export async function noteMessageBatch(
  db: Queryable,
  accountId: number,
  messageId: string,
  batchId: number,
): Promise<void> {
  await db.query('update registrar_messages set batch_id = $3 where account_id = $1 and message_id = $2', [
    accountId,
    messageId,
    batchId,
  ]);
}

/** A message as a screen shows it. */
export interface MessageRow {
  readonly accountId: number;
  readonly toldAt: Instant | null;
  readonly receivedAt: Instant;
  readonly kind: string | null;
  readonly name: string | null;
  readonly text: string;
}

/** Messages that were received since an instant, newest first. */
export async function selectMessages(db: Queryable, since: Instant, limit: number): Promise<MessageRow[]> {
  const { rows } = await db.query<MessageRow>(
    `select account_id as "accountId", told_at as "toldAt", received_at as "receivedAt", kind, name, text
     from registrar_messages where received_at >= $1 order by coalesce(told_at, received_at) desc limit $2`,
    [new Date(since), limit],
  );
  return rows;
}

/** What a registrar was asked to switch for a name, and has not confirmed; `null` where nothing was asked. */
export interface RequestedAtLink {
  readonly nameId: number;
  readonly ascii: string;
  readonly accountId: number;
  readonly auto: 'on' | 'off' | null;
  readonly lock: boolean | null;
  readonly privacy: boolean | null;
}

/**
 * Names at linked accounts whose registrar was asked to switch something and has not confirmed. A switch that the registrar
 * has taken is left alone for the time that it may take, by its account.
 */
export async function selectRequestedAtLinks(db: Queryable, asOf: Instant): Promise<RequestedAtLink[]> {
  const { rows } = await db.query<RequestedAtLink>(
    `select n.id as "nameId", n.ascii, n.account_id as "accountId", n.requested as auto, n.requested_lock as lock, n.requested_privacy as privacy
     from names n join accounts a on a.id = n.account_id
     where (n.requested is not null or n.requested_lock is not null or n.requested_privacy is not null)
       and n.gone_at is null and a.link_host is not null
       and (n.switch_pending_since is null or n.switch_pending_since + coalesce(a.switch_hours, $2) * interval '1 hour' < $1) order by n.account_id, n.ascii`,
    [new Date(asOf), USUAL_SWITCH_HOURS],
  );
  return rows;
}

/** Notes that a registrar has taken a switch and will carry it out later. */
export async function notePendingSwitch(db: Queryable, nameId: number, at: Instant): Promise<void> {
  await db.query('update names set switch_pending_since = $2 where id = $1', [nameId, new Date(at)]);
}

/** Points the links of some logins to other ports of this machine: the practice registrars listen where there is room. */
export async function moveLinks(db: Queryable, ports: Readonly<Record<string, number>>): Promise<void> {
  await db.query(
    `update accounts a set link_port = p.value::int from jsonb_each_text($1::jsonb) p
     where a.link_login = p.key and a.link_host = '127.0.0.1' and a.link_port <> p.value::int`,
    [JSON.stringify(ports)],
  );
}
