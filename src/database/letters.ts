import type { Language, LetterKind } from '@/core/shop';
import type { Instant } from '@/core/time';
import type { Database, Queryable, Transaction } from './pool';

/** What a buyer has sent from a window, and what has become of it. */
export interface LetterRow {
  readonly id: number;
  readonly tokenSealed: Buffer | null;
  readonly kind: LetterKind;
  readonly nameId: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly auctionId: number | null;
  readonly buyer: string;
  readonly mail: string;
  readonly language: Language;
  readonly minor: number;
  readonly currency: string;
  readonly message: string;
  readonly askedAt: Instant;
  readonly confirmedAt: Instant | null;
  readonly threadId: number | null;
  readonly placedMinor: number | null;
  readonly depositMinor: number;
  readonly heldMinor: number;
  readonly returnedAt: Instant | null;
  readonly refused: string | null;
  readonly told: string | null;
  /** No more news may come of it. */
  readonly over: boolean;
  readonly mailProblem: string | null;
  /** How often the server has refused the mail that is due. */
  readonly mailTries: number;
  /** Its auction has ended. */
  readonly isEnded: boolean;
}

const LETTER = `
  select l.id, l.token_sealed as "tokenSealed", l.kind, l.name_id as "nameId", n.ascii, n."unicode", l.auction_id as "auctionId", l.buyer, l.mail, l.language,
    l.minor, l.currency, l.message, l.asked_at as "askedAt", l.confirmed_at as "confirmedAt", l.thread_id as "threadId", l.placed_minor as "placedMinor",
    l.deposit_minor as "depositMinor", l.held_minor as "heldMinor", l.returned_at as "returnedAt", l.refused, l.told, l.over, l.mail_problem as "mailProblem", l.mail_tries as "mailTries",
    exists (select from auctions e where e.id = l.auction_id and e.outcome is not null) as "isEnded"
  from letters l join names n on n.id = l.name_id`;

export type NewLetter = Pick<
  LetterRow,
  | 'kind'
  | 'nameId'
  | 'auctionId'
  | 'buyer'
  | 'mail'
  | 'language'
  | 'minor'
  | 'currency'
  | 'message'
  | 'depositMinor'
  | 'askedAt'
> & { readonly tokenHash: Buffer };

/** Keeps a letter that nobody has confirmed yet. Answers its id. */
export async function insertLetter(tx: Transaction, letter: NewLetter): Promise<number> {
  const { rows } = await tx.query<{ id: number }>(
    `insert into letters (token_hash, kind, name_id, auction_id, buyer, mail, language, minor, currency, message, deposit_minor, asked_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12) returning id`,
    [
      letter.tokenHash,
      letter.kind,
      letter.nameId,
      letter.auctionId,
      letter.buyer,
      letter.mail,
      letter.language,
      letter.minor,
      letter.currency,
      letter.message,
      letter.depositMinor,
      new Date(letter.askedAt),
    ],
  );
  return rows[0]?.id as number;
}

export async function setLetterToken(tx: Transaction, id: number, sealed: Buffer): Promise<void> {
  await tx.query('update letters set token_sealed = $2 where id = $1', [id, sealed]);
}

export async function selectLetterByToken(db: Queryable, tokenHash: Buffer): Promise<LetterRow | null> {
  return (await db.query<LetterRow>(`${LETTER} where l.token_hash = $1`, [tokenHash])).rows[0] ?? null;
}

/** Locks a letter, so that it is confirmed and answered once. */
export async function lockLetter(tx: Transaction, id: number): Promise<LetterRow | null> {
  return (await tx.query<LetterRow>(`${LETTER} where l.id = $1 for no key update of l`, [id])).rows[0] ?? null;
}

/** Who has bid, or would, in an auction by the shop: confirmed letters, the first of each address first. */
export async function selectBiddersOf(db: Queryable, auctionId: number): Promise<LetterRow[]> {
  return (
    await db.query<LetterRow>(`${LETTER} where l.auction_id = $1 and l.confirmed_at is not null order by l.id`, [
      auctionId,
    ])
  ).rows;
}

/** Of a letter `l` and its auction `a`: a deposit that has still to come, or to go back once the auction has ended. */
export const DEPOSIT_DUE = `l.confirmed_at is not null
  and ((a.outcome is null and l.minor > coalesce(l.placed_minor, 0) and l.deposit_minor > l.held_minor)
    or (a.outcome is not null and l.held_minor > 0 and l.returned_at is null))`;

/** Deposits that the office has to take down, or to give back once their auction is over. */
export async function selectDeposits(db: Queryable): Promise<LetterRow[]> {
  const { rows } = await db.query<LetterRow>(
    `${LETTER} left join auctions a on a.id = l.auction_id where ${DEPOSIT_DUE} order by l.id`,
  );
  return rows;
}

const COLUMN = {
  buyer: 'buyer',
  mail: 'mail',
  confirmedAt: 'confirmed_at',
  threadId: 'thread_id',
  minor: 'minor',
  placedMinor: 'placed_minor',
  depositMinor: 'deposit_minor',
  heldMinor: 'held_minor',
  returnedAt: 'returned_at',
  refused: 'refused',
  over: 'over',
} as const;

export async function updateLetter(
  tx: Queryable,
  id: number,
  patch: Partial<Pick<LetterRow, keyof typeof COLUMN>>,
): Promise<void> {
  const keys = Object.keys(patch) as (keyof typeof COLUMN)[];
  const values = keys.map((key) => {
    const value = patch[key];
    return key.endsWith('At') && typeof value === 'number' ? new Date(value) : value;
  });
  await tx.query(`update letters set ${keys.map((key, i) => `${COLUMN[key]} = $${i + 2}`).join(', ')} where id = $1`, [
    id,
    ...values,
  ]);
}

/** So many letters are looked at in one go. */
export const LETTERS_AT_ONCE = 1000;

/** Letters of which there may be news to mail at an instant, the next of them behind `after`. */
export async function selectOpenLetters(db: Queryable, at: Instant, after: number): Promise<LetterRow[]> {
  const { rows } = await db.query<LetterRow>(
    `${LETTER} where not l.over and l.token_sealed is not null and l.id > $1 and (l.mail_again_at is null or l.mail_again_at <= $2)
     order by l.id limit ${LETTERS_AT_ONCE}`,
    [after, new Date(at)],
  );
  return rows;
}

/** Notes news as told, once: false where another process was faster. */
export async function claimNews(db: Database, letter: Pick<LetterRow, 'id' | 'told'>, told: string): Promise<boolean> {
  const { rowCount } = await db.query('update letters set told = $3 where id = $1 and told is not distinct from $2', [
    letter.id,
    letter.told,
    told,
  ]);
  return rowCount === 1;
}

/** Notes that the mail server has taken what it refused before. */
export async function noteMailed(db: Database, id: number): Promise<void> {
  await db.query('update letters set mail_problem = null, mail_tries = 0, mail_again_at = null where id = $1', [id]);
}

/** Puts news back that the mail server has refused: tried again from `againAt` on; `null`: never. */
export async function unclaimNews(
  db: Database,
  { id, told }: Pick<LetterRow, 'id' | 'told'>,
  problem: string,
  againAt: Instant | null,
): Promise<void> {
  await db.query(
    `update letters set told = $2, mail_problem = $3, mail_tries = mail_tries + 1, mail_again_at = $4, over = $4::timestamptz is null where id = $1`,
    [id, told, problem, againAt === null ? null : new Date(againAt)],
  );
}

export async function endLetters(db: Database, ids: readonly number[]): Promise<void> {
  await db.query('update letters set over = true where id = any($1)', [ids]);
}

/** Takes down that an address is mailed a link: false where it was before and nobody has ever confirmed from there. */
export async function mayMailLink(tx: Transaction, mail: string, mailHash: Buffer, at: Instant): Promise<boolean> {
  const { rowCount } = await tx.query(
    `insert into letters_mailed (mail_hash, at) values ($1, $2) on conflict (mail_hash) do update set at = excluded.at
       where exists (select from letters where lower(mail) = lower($3) and confirmed_at is not null)`,
    [mailHash, new Date(at), mail],
  );
  return rowCount === 1;
}

/** Forgets what nobody has confirmed in time. */
export async function deleteOldLetters(db: Database, askedBefore: Instant): Promise<number> {
  const { rowCount } = await db.query('delete from letters where confirmed_at is null and asked_at < $1', [
    new Date(askedBefore),
  ]);
  return rowCount ?? 0;
}

/** Whether one of these is blocked: a mail address as it is and as its mailbox, and its host (`sendersOf`). */
export async function isBlocked(db: Queryable, senders: readonly string[]): Promise<boolean> {
  return (await db.query('select from blocked_senders where sender = any($1)', [senders])).rows.length > 0;
}

export interface BlockedRow {
  readonly sender: string;
  readonly at: Instant;
  readonly person: string | null;
}

export async function selectBlocked(db: Queryable): Promise<BlockedRow[]> {
  return (await db.query<BlockedRow>('select sender, at, person from blocked_senders order by sender')).rows;
}

export async function insertBlocked(tx: Transaction, sender: string, at: Instant): Promise<void> {
  await tx.query('insert into blocked_senders (sender, at) values ($1, $2) on conflict do nothing', [
    sender,
    new Date(at),
  ]);
}

export async function deleteBlocked(tx: Transaction, sender: string): Promise<boolean> {
  return (await tx.query('delete from blocked_senders where sender = $1', [sender])).rowCount === 1;
}

/** Gives a thread that the office has begun with a bidder to the letter by which he bid: he answers at his own page. */
export async function attachThread(
  tx: Transaction,
  auctionId: number,
  bidder: string,
  threadId: number,
): Promise<void> {
  await tx.query(
    `update letters set thread_id = $3, over = false where id = (select id from letters where auction_id = $1 and confirmed_at is not null
       and buyer || ' <' || mail || '>' = $2 order by id desc limit 1)`,
    [auctionId, bidder, threadId],
  );
}
