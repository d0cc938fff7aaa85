import { type ItemState, UNSETTLED } from '@/core/orders';
import type { Instant } from '@/core/time';
import { oneOf, word } from './oneOf';
import type { Queryable, Transaction } from './pool';

const state = word<ItemState>;

/** A name that is being registered, or was. Amounts are minor units of `currency`. */
export interface RegistrationRow {
  readonly id: number;
  readonly runId: string;
  readonly ascii: string;
  readonly unicode: string;
  readonly ending: string;
  readonly typed: string;
  readonly purpose: string;
  readonly note: string;
  readonly accountId: number;
  readonly years: number;
  readonly autoRenew: boolean;
  readonly privacy: boolean;
  readonly nameServers: readonly string[];
  readonly holderMail: string | null;
  readonly byHand: boolean;
  readonly state: ItemState;
  readonly since: Instant;
  readonly orderId: string;
  readonly attempts: number;
  /** When it may have been sent first. */
  readonly firstSentAt: Instant | null;
  readonly quotedMinor: number | null;
  readonly capMinor: number | null;
  readonly currency: string;
  /** What each renewal costs, where the name has a price of its own. */
  readonly ownRenewalMinor: number | null;
  readonly payBy: string | null;
  readonly chargedMinor: number | null;
  readonly receipt: string | null;
  readonly registeredAt: Instant | null;
  readonly newEnd: Instant | null;
  readonly nameId: number | null;
  readonly problem: string | null;
  /** Who of the office began it, by the name he had then. */
  readonly person: string | null;
}

const COLUMNS = `id, run_id as "runId", ascii, "unicode", ending, typed, purpose, note, account_id as "accountId", years, auto_renew as "autoRenew",
  privacy, name_servers as "nameServers", holder_mail as "holderMail", by_hand as "byHand", state, since, order_id as "orderId", attempts,
  first_sent_at as "firstSentAt", quoted_minor as "quotedMinor", cap_minor as "capMinor", currency, own_renewal_minor as "ownRenewalMinor", pay_by as "payBy", charged_minor as "chargedMinor",
  receipt, registered_at as "registeredAt", new_end as "newEnd", name_id as "nameId", problem, person`;

export type RegistrationDraft = Pick<
  RegistrationRow,
  | 'ascii'
  | 'unicode'
  | 'ending'
  | 'typed'
  | 'purpose'
  | 'note'
  | 'accountId'
  | 'years'
  | 'autoRenew'
  | 'privacy'
  | 'nameServers'
  | 'holderMail'
  | 'byHand'
  | 'orderId'
  | 'quotedMinor'
  | 'capMinor'
  | 'currency'
  | 'ownRenewalMinor'
  | 'payBy'
>;

/** Puts names on their way to be registered. One that is on its way already, or was begun under the same key, is left out: answers the rest. */
export async function insertRegistrations(
  tx: Transaction,
  runId: string,
  key: string | null,
  drafts: readonly RegistrationDraft[],
  at: Instant,
): Promise<string[]> {
  const { rows } = await tx.query<{ ascii: string }>(
    `insert into registrations (run_id, idempotency_key, ascii, "unicode", ending, typed, purpose, note, account_id, years, auto_renew, privacy,
       name_servers, holder_mail, by_hand, state, since, order_id, quoted_minor, cap_minor, currency, own_renewal_minor, pay_by)
     select $1, $2, d.ascii, d."unicode", d.ending, d.typed, d.purpose, d.note, d."accountId", d.years, d."autoRenew", d.privacy,
       array(select jsonb_array_elements_text(d."nameServers")), d."holderMail", d."byHand", ${state('waiting')}, $4, d."orderId", d."quotedMinor",
       d."capMinor", d.currency, d."ownRenewalMinor", d."payBy"
     from jsonb_to_recordset($3::jsonb) as d(ascii text, "unicode" text, ending text, typed text, purpose text, note text, "accountId" int, years int,
       "autoRenew" boolean, privacy boolean, "nameServers" jsonb, "holderMail" text, "byHand" boolean, "orderId" text, "quotedMinor" int8,
       "capMinor" int8, currency text, "ownRenewalMinor" int8, "payBy" text)
     on conflict do nothing returning ascii`,
    [runId, key, JSON.stringify(drafts), new Date(at)],
  );
  return rows.map(({ ascii }) => ascii);
}

/** Takes back a run that was not begun after all: of its names none may be bought. */
export async function deleteRegistrations(tx: Transaction, runId: string): Promise<void> {
  await tx.query('delete from registrations where run_id = $1', [runId]);
}

/** The run that was begun under a key; `null` without one. */
export async function selectRegistrationRun(db: Queryable, key: string): Promise<string | null> {
  const { rows } = await db.query<{ runId: string }>(
    'select run_id as "runId" from registrations where idempotency_key = $1 limit 1',
    [key],
  );
  return rows[0]?.runId ?? null;
}

export async function selectRegistrations(db: Queryable, runId: string): Promise<RegistrationRow[]> {
  return (
    await db.query<RegistrationRow>(`select ${COLUMNS} from registrations where run_id = $1 order by id`, [runId])
  ).rows;
}

/** One registration, by its number or its order's own id. */
export async function selectRegistration(db: Queryable, id: number | string): Promise<RegistrationRow | null> {
  const where = typeof id === 'number' ? 'id = $1' : 'order_id = $1';
  return (await db.query<RegistrationRow>(`select ${COLUMNS} from registrations where ${where}`, [id])).rows[0] ?? null;
}

/** One registration, locked until the transaction ends. */
export async function lockRegistration(tx: Transaction, id: number): Promise<RegistrationRow | null> {
  const { rows } = await tx.query<RegistrationRow>(`select ${COLUMNS} from registrations where id = $1 for update`, [
    id,
  ]);
  return rows[0] ?? null;
}

/** Everything that is not settled yet, with what a person has to do and what is in doubt. */
export async function selectOpenRegistrations(db: Queryable): Promise<RegistrationRow[]> {
  return (
    await db.query<RegistrationRow>(
      `select ${COLUMNS} from registrations where state ${oneOf(UNSETTLED)} order by since, id`,
    )
  ).rows;
}

/** The newest registrations that are settled. */
export async function selectSettledRegistrations(db: Queryable, limit: number): Promise<RegistrationRow[]> {
  return (
    await db.query<RegistrationRow>(
      `select ${COLUMNS} from registrations where not (state ${oneOf(UNSETTLED)}) order by since desc, id desc limit $1`,
      [limit],
    )
  ).rows;
}

/** Notes that orders may have been sent, before they are. */
export async function markRegistrations(db: Queryable, ids: readonly number[], at: Instant): Promise<void> {
  await db.query(
    `update registrations set state = ${state('sending')}, attempts = attempts + 1, first_sent_at = coalesce(first_sent_at, $2) where id = any($1)`,
    [ids, new Date(at)],
  );
}

/** Writes what keeps registrations from going on. What was settled meanwhile is left alone. */
export async function moveRegistrations(
  db: Queryable,
  moved: readonly { readonly id: number; readonly state: ItemState; readonly problem: string | null }[],
  at: Instant,
): Promise<void> {
  await db.query(
    `update registrations r set state = m.state, problem = m.problem, since = case when r.state = m.state then r.since else $2 end
     from jsonb_to_recordset($1::jsonb) as m(id int, state text, problem text) where r.id = m.id and r.state ${oneOf(UNSETTLED)}`,
    [JSON.stringify(moved), new Date(at)],
  );
}

/** What came of a registration. */
export interface RegistrationEnd {
  readonly id: number;
  readonly chargedMinor: number | null;
  readonly receipt: string | null;
  /** Milliseconds. */
  readonly registeredAt: number;
  readonly newEnd: number;
  readonly problem: string | null;
}

/** Settles registrations that were carried out, each once. Answers the ids of those that were not settled before. */
export async function settleRegistrations(
  tx: Transaction,
  ends: readonly RegistrationEnd[],
  at: Instant,
): Promise<ReadonlySet<number>> {
  const { rows } = await tx.query<{ id: number }>(
    `update registrations r set state = ${state('done')}, since = $2, charged_minor = e."chargedMinor", receipt = e.receipt,
       registered_at = to_timestamp(e."registeredAt" / 1000.0), new_end = to_timestamp(e."newEnd" / 1000.0), problem = e.problem
     from jsonb_to_recordset($1::jsonb) as e(id int, "chargedMinor" int8, receipt text, "registeredAt" float8, "newEnd" float8, problem text)
     where r.id = e.id and r.state ${oneOf(UNSETTLED)} returning r.id`,
    [JSON.stringify(ends), new Date(at)],
  );
  return new Set(rows.map(({ id }) => id));
}

/** Notes which names of the ledger registrations have become. */
export async function nameRegistrations(tx: Transaction, ids: readonly number[]): Promise<void> {
  await tx.query('update registrations r set name_id = n.id from names n where r.id = any($1) and n.ascii = r.ascii', [
    ids,
  ]);
}

/** A registrar did not carry out what it had taken for later. */
export async function refuseRegistration(
  tx: Transaction,
  accountId: number,
  orderId: string,
  problem: string,
): Promise<void> {
  await tx.query(
    `update registrations set state = ${state('refused')}, problem = $3 where account_id = $1 and order_id = $2 and state = ${state('pending')}`,
    [accountId, orderId, problem],
  );
}

/** A mail address of a holder at an account, with whether it is confirmed. */
export interface HolderAddress {
  readonly accountId: number;
  readonly address: string;
  readonly confirmedAt: Instant | null;
  readonly evidence: string;
  readonly askedAt: Instant | null;
  readonly sentAgainAt: Instant | null;
  /** Names that hang on it. */
  readonly names: readonly string[];
}

export async function selectHolderAddresses(db: Queryable): Promise<HolderAddress[]> {
  const { rows } = await db.query<HolderAddress>(
    `select h.account_id as "accountId", h.address, h.confirmed_at as "confirmedAt", h.evidence, h.asked_at as "askedAt",
       h.sent_again_at as "sentAgainAt",
       array(select distinct r.ascii from registrations r where r.account_id = h.account_id and lower(r.holder_mail) = lower(h.address)
         and r.state = ${state('done')} order by r.ascii) as names
     from holder_addresses h order by h.account_id, h.address`,
  );
  return rows;
}

/** Notes that an address is to be confirmed at an account; one that is confirmed stays so. */
export async function askHolderAddress(
  tx: Transaction,
  addresses: readonly { readonly accountId: number; readonly address: string }[],
  at: Instant,
): Promise<void> {
  await tx.query(
    `insert into holder_addresses (account_id, address, asked_at) select distinct a."accountId", lower(a.address), $2::timestamptz
     from jsonb_to_recordset($1::jsonb) as a("accountId" int, address text)
     on conflict (account_id, address) do update set asked_at = coalesce(holder_addresses.asked_at, excluded.asked_at)`,
    [JSON.stringify(addresses), new Date(at)],
  );
}

/** Notes that an address is confirmed, with what shows it. */
export async function confirmHolderAddress(
  tx: Transaction,
  accountId: number,
  address: string,
  evidence: string,
  at: Instant,
): Promise<void> {
  await tx.query(
    `insert into holder_addresses (account_id, address, confirmed_at, evidence) values ($1, lower($2), $3, $4)
     on conflict (account_id, address) do update set confirmed_at = excluded.confirmed_at, evidence = excluded.evidence`,
    [accountId, address, new Date(at), evidence],
  );
}

/** Notes that the mail which asks for it was sent again. */
export async function noteSentAgain(tx: Transaction, accountId: number, address: string, at: Instant): Promise<void> {
  await tx.query('update holder_addresses set sent_again_at = $3 where account_id = $1 and address = lower($2)', [
    accountId,
    address,
    new Date(at),
  ]);
}

/** The holder’s address with which a name was registered at an account; `null` where that is not known. */
export async function selectHolderMail(db: Queryable, accountId: number, ascii: string): Promise<string | null> {
  const { rows } = await db.query<{ mail: string }>(
    `select holder_mail as mail from registrations where account_id = $1 and ascii = $2 and holder_mail is not null order by id desc limit 1`,
    [accountId, ascii],
  );
  return rows[0]?.mail ?? null;
}

/** A holder's mail address at one account. */
export interface AddressAt {
  readonly accountId: number;
  readonly address: string;
}

/** Names that are still to be confirmed and hang on one of these addresses: a confirmed address is confirmed for all of them. */
export async function selectToConfirmWith(tx: Transaction, addresses: readonly AddressAt[]): Promise<number[]> {
  const { rows } = await tx.query<{ id: number }>(
    `select distinct n.id from jsonb_to_recordset($1::jsonb) as a("accountId" int, address text)
     join registrations r on r.account_id = a."accountId" and lower(r.holder_mail) = lower(a.address)
     join names n on n.id = r.name_id and n.account_id = r.account_id
     where n.confirm_mail_by is not null and n.gone_at is null`,
    [JSON.stringify(addresses)],
  );
  return rows.map(({ id }) => id);
}

/** Whether a name was registered with this address at this account. */
export async function isHolderAddress(tx: Transaction, { accountId, address }: AddressAt): Promise<boolean> {
  const { rowCount } = await tx.query(
    'select from holder_addresses where account_id = $1 and address = lower($2) for update',
    [accountId, address],
  );
  return rowCount === 1;
}

/** Notes that the addresses with which names were registered are confirmed, by a person's word. Answers those addresses. */
export async function confirmAddressesOf(
  tx: Transaction,
  nameIds: readonly number[],
  at: Instant,
): Promise<AddressAt[]> {
  const { rows } = await tx.query<AddressAt>(
    `insert into holder_addresses (account_id, address, confirmed_at, evidence)
     select distinct account_id, lower(holder_mail), $2::timestamptz, 'said by hand' from registrations
     where name_id = any($1) and holder_mail is not null
     on conflict (account_id, address) do update set confirmed_at = coalesce(holder_addresses.confirmed_at, excluded.confirmed_at),
       evidence = case when holder_addresses.confirmed_at is null then excluded.evidence else holder_addresses.evidence end
     returning account_id as "accountId", address`,
    [nameIds, new Date(at)],
  );
  return rows;
}
