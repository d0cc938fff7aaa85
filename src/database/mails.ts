import type { AutoRenewSetting } from '@/core/funding';
import type { Amount } from '@/core/money';
import type { News, NewsKind, StandingNow } from '@/core/news';
import type { Instant, TermEnd } from '@/core/time';
import type { Queryable, Transaction } from './pool';

export const MAIL_SOURCES = ['dropped', 'pasted', 'mailbox', 'received'] as const;
export type MailSource = (typeof MAIL_SOURCES)[number];
/** What became of what follows from a mail for a name. */
export type NewsState = 'nothing' | 'open' | 'taken' | 'left';

/** A mail as it is kept. */
export interface MailDraft {
  readonly messageId: string;
  readonly source: MailSource;
  readonly cameAt: Instant;
  readonly sentAt: Instant | null;
  readonly sender: string;
  readonly senderName: string;
  readonly subject: string;
  readonly body: string;
  readonly raw: Uint8Array;
  readonly signatures: readonly string[];
}

/** What a mail says of a name of the ledger. */
export interface MailNameRow {
  readonly nameId: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly date: TermEnd | null;
  readonly amount: Amount | null;
  readonly state: NewsState;
  readonly batchId: number | null;
  /** Who took it over or left it, by the name he had then. */
  readonly person: string | null;
}

export interface MailRow extends Omit<MailDraft, 'raw' | 'body'> {
  readonly id: number;
  readonly kind: NewsKind;
  readonly accountId: number | null;
  readonly account: string | null;
  readonly isSure: boolean;
  readonly names: readonly MailNameRow[];
}

/** Keeps a mail with what it tells. Answers its number; `null` when it is there already. */
export async function insertMail(
  tx: Transaction,
  mail: MailDraft,
  { kind, accountId, isSure, names }: News,
  openNames: ReadonlySet<number>,
): Promise<number | null> {
  const { rows } = await tx.query<{ id: number }>(
    `insert into mails (message_id, source, came_at, sent_at, sender, sender_name, subject, body, raw, signatures, kind, account_id, is_sure)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13) on conflict (message_id) do nothing returning id`,
    [
      mail.messageId,
      mail.source,
      new Date(mail.cameAt),
      mail.sentAt === null ? null : new Date(mail.sentAt),
      mail.sender,
      mail.senderName,
      mail.subject,
      mail.body,
      mail.raw,
      mail.signatures,
      kind,
      accountId,
      isSure,
    ],
  );
  const id = rows[0]?.id ?? null;
  if (id === null || names.length === 0) return id;
  await tx.query(
    `insert into mail_names (mail_id, name_id, date, date_day, minor, currency, state)
     select $1, n."nameId", to_timestamp(n."at" / 1000.0), n."isDay", n.minor, n.currency, n.state
     from jsonb_to_recordset($2::jsonb) as n("nameId" int, "at" float8, "isDay" boolean, minor bigint, currency text, state text)`,
    [
      id,
      JSON.stringify(
        names.map(({ nameId, date, amount }) => ({
          nameId,
          at: date?.at ?? null,
          isDay: date ? date.precision === 'day' : null,
          minor: amount?.minor ?? null,
          currency: amount?.currency ?? null,
          state: openNames.has(nameId) ? 'open' : 'nothing',
        })),
      ),
    ],
  );
  return id;
}

const NAMES = `coalesce((select jsonb_agg(jsonb_build_object('nameId', m.name_id, 'ascii', n.ascii, 'unicode', n."unicode",
    'date', case when m.date is not null then jsonb_build_object('at', (extract(epoch from m.date) * 1000)::bigint,
      'precision', case when m.date_day then 'day' else 'instant' end) end,
    'amount', case when m.minor is not null then jsonb_build_object('minor', m.minor, 'currency', m.currency) end,
    'state', m.state, 'batchId', m.batch_id, 'person', m.person) order by n.ascii)
  from mail_names m join names n on n.id = m.name_id where m.mail_id = x.id), '[]') as names`;
const COLUMNS = `x.id, x.message_id as "messageId", x.source, x.came_at as "cameAt", x.sent_at as "sentAt", x.sender, x.sender_name as "senderName",
  x.subject, x.signatures, x.kind, x.account_id as "accountId", a.label as account, x.is_sure as "isSure", ${NAMES}`;

/** Which mails are wanted: with something to decide, with a text in them, of a name. */
export interface MailsWanted {
  readonly open?: boolean;
  readonly text?: string;
  readonly nameId?: number;
  readonly before?: number;
  readonly limit: number;
}

/** Mails, those that came last first. */
export async function selectMails(
  db: Queryable,
  { open, text, nameId, before, limit }: MailsWanted,
): Promise<MailRow[]> {
  const { rows } = await db.query<MailRow>(
    `select ${COLUMNS} from mails x left join accounts a on a.id = x.account_id
     where ($1::boolean is not true or exists (select from mail_names m where m.mail_id = x.id and m.state = 'open'))
       and ($2::text is null or strpos(lower(x.subject || ' ' || x.sender || ' ' || x.body), lower($2)) > 0)
       and ($3::int is null or exists (select from mail_names m where m.mail_id = x.id and m.name_id = $3))
       and ($4::int is null or x.id < $4) order by x.id desc limit $5`,
    [open ?? null, text || null, nameId ?? null, before ?? null, limit],
  );
  return rows;
}

export async function selectMail(db: Queryable, id: number): Promise<(MailRow & { readonly body: string }) | null> {
  const { rows } = await db.query<MailRow & { body: string }>(
    `select ${COLUMNS}, x.body from mails x left join accounts a on a.id = x.account_id where x.id = $1`,
    [id],
  );
  return rows[0] ?? null;
}

/** A mail as it came. */
export async function selectRawMail(db: Queryable, id: number): Promise<Buffer | null> {
  const { rows } = await db.query<{ raw: Buffer }>('select raw from mails where id = $1', [id]);
  return rows[0]?.raw ?? null;
}

/** Says what became of what follows from a mail for a name. Answers whether it was still open. */
export async function settleNews(
  tx: Queryable,
  mailId: number,
  nameId: number,
  state: 'taken' | 'left',
): Promise<boolean> {
  const { rowCount } = await tx.query(
    "update mail_names set state = $3, person = acting_person() where mail_id = $1 and name_id = $2 and state = 'open'",
    [mailId, nameId, state],
  );
  return rowCount === 1;
}

/** Notes by which batch of the history something was taken over. */
export async function noteNewsBatch(db: Queryable, mailId: number, nameId: number, batchId: number): Promise<void> {
  await db.query('update mail_names set batch_id = $3 where mail_id = $1 and name_id = $2', [mailId, nameId, batchId]);
}

/** What was to be taken over could not be: it is open again. */
export async function reopenNews(db: Queryable, mailId: number, nameId: number): Promise<void> {
  await db.query("update mail_names set state = 'open' where mail_id = $1 and name_id = $2 and state = 'taken'", [
    mailId,
    nameId,
  ]);
}

/** How many mails say something that nobody has taken over or left yet. */
export async function countOpenMails(db: Queryable): Promise<number> {
  const { rows } = await db.query<{ count: number }>(
    "select count(distinct mail_id)::int as count from mail_names where state = 'open'",
  );
  return rows[0]?.count ?? 0;
}

/** Those of some A-labels that are names of the ledger, with their account. */
export async function selectNamesForNews(
  db: Queryable,
  ascii: readonly string[],
): Promise<{ id: number; ascii: string; accountId: number }[]> {
  const { rows } = await db.query<{ id: number; ascii: string; accountId: number }>(
    'select id, ascii, account_id as "accountId" from names where gone_at is null and ascii = any($1)',
    [ascii],
  );
  return rows;
}

/** How some names stand: the end of each term, and its auto-renew. */
export async function selectStandings(db: Queryable, ids: readonly number[]): Promise<Map<number, StandingNow>> {
  const { rows } = await db.query<{ id: number; end: Instant | null; isDay: boolean; setting: AutoRenewSetting }>(
    'select id, term_end as "end", term_end_day as "isDay", setting from names where id = any($1)',
    [ids],
  );
  return new Map(
    rows.map(({ id, end, isDay, setting }) => [
      id,
      { termEnd: end === null ? null : { at: end, precision: isDay ? 'day' : 'instant' }, setting },
    ]),
  );
}
