import type { ItemState } from '@/core/orders';
import type { Day, Instant } from '@/core/time';
import { word } from './oneOf';
import type { Queryable, Transaction } from './pool';

/** How asking a holder stands. */
export const APPROACH_STATES = ['open', 'agreed', 'paid', 'arrived', 'ended'] as const;
export type ApproachState = (typeof APPROACH_STATES)[number];

/** A name whose holder is asked. Amounts are minor units of `currency`. */
export interface ApproachRow {
  readonly id: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly ending: string;
  readonly holder: string;
  /** Where mail to the holder goes. */
  readonly contact: string;
  /** The most one would pay; `null` where none is set. */
  readonly limitMinor: number | null;
  readonly currency: string;
  readonly state: ApproachState;
  readonly since: Instant;
  readonly answerBy: Instant | null;
  readonly agreedMinor: number | null;
  readonly feesMinor: number;
  readonly moneyWith: string;
  readonly arrivesBy: 'push' | 'transfer' | null;
  readonly accountId: number | null;
  readonly paidOn: Day | null;
  readonly reference: string;
  readonly nameId: number | null;
  readonly note: string;
  readonly lines: readonly ApproachLine[];
}

/** Something that was said, by us or to us. */
export interface ApproachLine {
  readonly at: Instant;
  readonly isOurs: boolean;
  readonly byMail: boolean;
  readonly text: string;
  readonly figureMinor: number | null;
  /** When a mail was handed over; `null` while nobody knows whether it was. */
  readonly sentAt: Instant | null;
  /** Who of the office wrote or noted it, by the name he had then. */
  readonly person: string | null;
}

const ms = (column: string) => `(date_part('epoch', ${column}) * 1000)::int8`;

const ROW = `
  select a.id, a.ascii, a."unicode", a.ending, a.holder, a.contact, a.limit_minor as "limitMinor", a.currency, a.state, a.since,
    a.answer_by as "answerBy", a.agreed_minor as "agreedMinor", a.fees_minor as "feesMinor", a.money_with as "moneyWith",
    a.arrives_by as "arrivesBy", a.account_id as "accountId", a.paid_on as "paidOn", a.reference, a.name_id as "nameId", a.note,
    coalesce((select jsonb_agg(jsonb_build_object('at', ${ms('l.at')}, 'isOurs', l.is_ours, 'byMail', l.by_mail, 'text', l.text,
      'figureMinor', l.figure_minor, 'sentAt', ${ms('l.sent_at')}, 'person', l.person) order by l.at, l.id) from approach_lines l where l.approach_id = a.id), '[]') as lines
  from approaches a`;

/** Every thread, the open ones first. */
export async function selectApproaches(db: Queryable): Promise<ApproachRow[]> {
  return (
    await db.query<ApproachRow>(
      `${ROW} order by a.state in ('open', 'agreed', 'paid') desc, a.answer_by nulls last, a.since desc limit 300`,
    )
  ).rows;
}

/** One thread, locked until the transaction ends; \`null\` when it is not there. */
export async function lockApproach(tx: Transaction, id: number): Promise<ApproachRow | null> {
  await tx.query('select from approaches where id = $1 for update', [id]);
  return (await tx.query<ApproachRow>(`${ROW} where a.id = $1`, [id])).rows[0] ?? null;
}

export type ApproachDraft = Pick<
  ApproachRow,
  'ascii' | 'unicode' | 'ending' | 'holder' | 'contact' | 'limitMinor' | 'currency' | 'note'
>;

/** Begins a thread; \`null\` where one for the name is open already. */
export async function insertApproach(tx: Transaction, draft: ApproachDraft, at: Instant): Promise<number | null> {
  const { ascii, unicode, ending, holder, contact, limitMinor, currency, note } = draft;
  const { rows } = await tx.query<{ id: number }>(
    `insert into approaches (ascii, "unicode", ending, holder, contact, limit_minor, currency, note, since)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9) on conflict do nothing returning id`,
    [ascii, unicode, ending, holder, contact, limitMinor, currency, note, new Date(at)],
  );
  return rows[0]?.id ?? null;
}

/** Adds what was said. Answers the number of the line. */
export async function insertApproachLine(
  tx: Transaction,
  approachId: number,
  line: Omit<ApproachLine, 'at' | 'sentAt' | 'person'>,
  at: Instant,
): Promise<number> {
  const { rows } = await tx.query<{ id: number }>(
    'insert into approach_lines (approach_id, at, is_ours, by_mail, text, figure_minor) values ($1, $2, $3, $4, $5, $6) returning id',
    [approachId, new Date(at), line.isOurs, line.byMail, line.text, line.figureMinor],
  );
  return rows[0]?.id ?? 0;
}

/** Notes that a mail was handed over. */
export async function noteLineSent(db: Queryable, lineId: number, at: Instant): Promise<void> {
  await db.query('update approach_lines set sent_at = $2 where id = $1', [lineId, new Date(at)]);
}

/** Columns of a thread that a step changes. */
export type ApproachPatch = Partial<{
  state: ApproachState;
  answer_by: Date | null;
  agreed_minor: number;
  fees_minor: number;
  money_with: string;
  arrives_by: 'push' | 'transfer';
  account_id: number;
  paid_on: Day;
  reference: string;
  name_id: number;
}>;

export async function updateApproach(tx: Transaction, id: number, patch: ApproachPatch, at: Instant): Promise<void> {
  const columns = Object.keys(patch);
  if (columns.length === 0) return;
  const set = columns.map((column, i) => `${column} = $${i + 3}`).join(', ');
  await tx.query(
    `update approaches set ${set}, since = case when ${columns.includes('state')} then $2 else since end where id = $1`,
    [id, new Date(at), ...Object.values(patch)],
  );
}

/** How much of acquiring waits for a person: to be registered by hand, in doubt, to be paid, to arrive, or without an answer in time. */
export async function countAcquiring(db: Queryable, at: Instant): Promise<number> {
  const { rows } = await db.query<{ count: number }>(
    `select (select count(*) from registrations where state = ${word<ItemState>('doubt')} or (by_hand and state = ${word<ItemState>('waiting')}))
       + (select count(*) from approaches where state in ('agreed', 'paid') or (state = 'open' and answer_by <= $1)) as count`,
    [new Date(at)],
  );
  return rows[0]?.count ?? 0;
}
