import type { Amount } from '@/core/money';
import {
  AWAITING_STAGES,
  type Figure,
  type FigureState,
  type ListingStatus,
  OFFERING_THREADS,
  OPEN_THREADS,
  STANDING_FIGURES,
  type ThreadState,
} from '@/core/selling';
import type { Instant } from '@/core/time';
import { DEPOSIT_DUE } from './letters';
import { oneOf, word } from './oneOf';
import type { Queryable, Transaction } from './pool';

const threadState = word<ThreadState>;
const figureState = word<FigureState>;

export interface FigureRow extends Figure {
  readonly id: number;
  readonly ref: string | null;
  readonly byRule: boolean;
  readonly note: string;
  /** Who of the office gave or settled it, by the name he had then. */
  readonly person: string | null;
}

/** A negotiation with one buyer about one name. */
export interface ThreadRow {
  readonly id: number;
  readonly nameId: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly marketplaceId: number | null;
  readonly marketplace: string | null;
  readonly ref: string | null;
  readonly buyer: string;
  readonly contact: string;
  readonly currency: string;
  /** What is asked for the name. */
  readonly asking: Amount | null;
  readonly state: ThreadState;
  readonly madeAt: Instant;
  readonly note: string;
  /** The buyer has written by the shop window, and answers at a page of his own. */
  readonly byShop: boolean;
  /** Why the last mail to him was not taken; `null` where it was. */
  readonly mailProblem: string | null;
  readonly figures: readonly FigureRow[];
}

const THREAD = `
  select t.id, t.name_id as "nameId", n.ascii, n."unicode", t.marketplace_id as "marketplaceId", v.label as marketplace, t.ref, t.buyer, t.contact, t.currency,
    case when n.asking_minor is not null then json_build_object('minor', n.asking_minor, 'currency', n.asking_currency) end as asking,
    t.state, t.made_at as "madeAt", t.note, exists (select from letters l where l.thread_id = t.id) as "byShop",
    (select l.mail_problem from letters l where l.thread_id = t.id) as "mailProblem",
    coalesce((select json_agg(json_build_object('id', f.id, 'by', f.by, 'minor', f.minor, 'at', extract(epoch from f.at) * 1000,
      'lapsesAt', extract(epoch from f.lapses_at) * 1000, 'state', f.state, 'ref', f.ref, 'byRule', f.by_rule, 'note', f.note, 'person', f.person) order by f.id)
      from figures f where f.thread_id = t.id), '[]') as figures
  from offer_threads t join names n on n.id = t.name_id left join marketplaces v on v.id = t.marketplace_id`;

export async function selectThreads(db: Queryable, nameIds: readonly number[] | null): Promise<ThreadRow[]> {
  const { rows } = await db.query<ThreadRow>(
    `${THREAD} where ($1::int[] is null and t.state ${oneOf(OPEN_THREADS)}) or t.name_id = any($1) order by t.id desc`,
    [nameIds],
  );
  return rows;
}

export async function selectThreadsById(db: Queryable, ids: readonly number[]): Promise<ThreadRow[]> {
  return (await db.query<ThreadRow>(`${THREAD} where t.id = any($1)`, [ids])).rows;
}

export async function selectThread(db: Queryable, id: number): Promise<ThreadRow | null> {
  return (await db.query<ThreadRow>(`${THREAD} where t.id = $1`, [id])).rows[0] ?? null;
}

/** Locks a thread with its name, so that answers come one after the other. */
export async function lockThread(tx: Transaction, id: number): Promise<ThreadRow | null> {
  await tx.query(
    'select 1 from names n join offer_threads t on t.name_id = n.id where t.id = $1 for no key update of n, t',
    [id],
  );
  return selectThread(tx, id);
}

export async function selectThreadByRef(db: Queryable, marketplaceId: number, ref: string): Promise<ThreadRow | null> {
  return (
    (await db.query<ThreadRow>(`${THREAD} where t.marketplace_id = $1 and t.ref = $2`, [marketplaceId, ref])).rows[0] ??
    null
  );
}

export async function insertThread(
  tx: Transaction,
  thread: Pick<ThreadRow, 'nameId' | 'marketplaceId' | 'ref' | 'buyer' | 'contact' | 'currency' | 'note'>,
  at: Instant,
): Promise<number> {
  const { rows } = await tx.query<{ id: number }>(
    `insert into offer_threads (name_id, marketplace_id, ref, buyer, contact, currency, note, made_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8) returning id`,
    [
      thread.nameId,
      thread.marketplaceId,
      thread.ref,
      thread.buyer,
      thread.contact,
      thread.currency,
      thread.note,
      new Date(at),
    ],
  );
  return rows[0]?.id as number;
}

/** Names a figure: it voids the one before. Answers its id. */
export async function insertFigure(
  tx: Transaction,
  threadId: number,
  figure: Pick<FigureRow, 'by' | 'minor' | 'at' | 'lapsesAt' | 'ref'> & {
    readonly byRule?: boolean;
    readonly note?: string;
    readonly tell?: boolean;
  },
): Promise<number> {
  await tx.query(
    `update figures set state = ${figureState('voided')} where thread_id = $1 and state = ${figureState('live')}`,
    [threadId],
  );
  const { rows } = await tx.query<{ id: number }>(
    `insert into figures (thread_id, by, minor, at, lapses_at, ref, by_rule, note, to_tell) values ($1, $2, $3, $4, $5, $6, $7, $8, $9) returning id`,
    [
      threadId,
      figure.by,
      figure.minor,
      new Date(figure.at),
      figure.lapsesAt === null ? null : new Date(figure.lapsesAt),
      figure.ref,
      figure.byRule ?? false,
      figure.note ?? '',
      figure.tell ? 'counter' : null,
    ],
  );
  return rows[0]?.id as number;
}

export async function setFigure(
  tx: Transaction,
  id: number,
  state: Figure['state'],
  tell: 'decline' | null = null,
): Promise<void> {
  await tx.query(
    'update figures set state = $2, to_tell = coalesce($3, to_tell), person = coalesce(acting_person(), person) where id = $1',
    [id, state, tell],
  );
}

export async function setThread(tx: Transaction, id: number, state: ThreadState): Promise<void> {
  await tx.query('update offer_threads set state = $2 where id = $1', [id, state]);
}

/** Lets open threads of a name wait while it is promised, or opens the waiting ones again. */
export async function holdThreads(
  tx: Transaction,
  nameId: number,
  hold: boolean,
  except: number | null,
): Promise<void> {
  await tx.query(`update offer_threads set state = $2 where name_id = $1 and state = $3 and id is distinct from $4`, [
    nameId,
    hold ? 'waiting' : 'open',
    hold ? 'open' : 'waiting',
    except,
  ]);
}

/** Closes every thread of a name that is sold for good. */
export async function closeThreads(tx: Transaction, nameId: number): Promise<void> {
  await tx.query(
    `update offer_threads set state = ${threadState('declined')} where name_id = $1 and state ${oneOf(OPEN_THREADS)}`,
    [nameId],
  );
}

/** True when something has lapsed that is not marked yet. */
export async function hasLapsed(db: Queryable, at: Instant): Promise<boolean> {
  const { rows } = await db.query(
    `select 1 from figures where state = ${figureState('live')} and lapses_at <= $1 limit 1`,
    [new Date(at)],
  );
  return rows.length > 0;
}

/** Marks what has lapsed by now. Answers the names it was about. */
export async function lapseFigures(tx: Transaction, at: Instant): Promise<number[]> {
  const { rows } = await tx.query<{ id: number }>(
    `with lapsed as (
       update figures set state = ${figureState('lapsed')} where state = ${figureState('live')} and lapses_at <= $1 returning thread_id
     ) update offer_threads t set state = ${threadState('lapsed')} from lapsed where t.id = lapsed.thread_id and t.state ${oneOf(OPEN_THREADS)} returning t.name_id as id`,
    [new Date(at)],
  );
  return rows.map(({ id }) => id);
}

/** Answers that marketplaces with a link have still to be told. */
export interface Untold {
  readonly figureId: number;
  readonly marketplaceId: number;
  readonly threadRef: string;
  readonly what: 'counter' | 'decline';
  readonly minor: number;
  readonly lapsesAt: Instant | null;
}

export async function selectUntoldFigures(db: Queryable): Promise<Untold[]> {
  const { rows } = await db.query<Untold>(
    `select f.id as "figureId", t.marketplace_id as "marketplaceId", t.ref as "threadRef", f.to_tell as what, f.minor, f.lapses_at as "lapsesAt"
     from figures f join offer_threads t on t.id = f.thread_id where f.to_tell is not null and t.ref is not null order by f.id`,
  );
  return rows;
}

/** How a marketplace calls a figure and its thread; `null` for one that is kept by hand. */
export async function selectFigureRefs(
  db: Queryable,
  figureId: number,
): Promise<{ readonly thread: string; readonly figure: string } | null> {
  const { rows } = await db.query<{ thread: string; figure: string }>(
    'select t.ref as thread, f.ref as figure from figures f join offer_threads t on t.id = f.thread_id where f.id = $1 and t.ref is not null',
    [figureId],
  );
  return rows[0] ?? null;
}

export async function markFigureTold(db: Queryable, id: number): Promise<void> {
  await db.query('update figures set to_tell = null where id = $1', [id]);
}

/** Feeds the ledger's best offer from the live figures of buyers. */
export async function noteBestOffers(tx: Transaction, nameIds: readonly number[]): Promise<void> {
  await tx.query(
    `update names n set best_offer_minor = b.minor, best_offer_currency = b.currency
     from (select distinct on (i.id) i.id, f.minor, case when f.minor is null then null else t.currency end as currency
           from unnest($1::int[]) as i(id) left join offer_threads t on t.name_id = i.id and t.state ${oneOf(OFFERING_THREADS)}
           left join figures f on f.thread_id = t.id and f.by = 'buyer' and f.state ${oneOf(STANDING_FIGURES)}
           order by i.id, f.minor desc nulls last) b
     where n.id = b.id and exists (select from offer_threads t where t.name_id = n.id)`,
    [nameIds],
  );
}

/** How much of selling awaits the owner's answer: buyers' figures, deposits, handovers, and listings that nobody sees for want of proof. */
export async function countAwaiting(db: Queryable, at: Instant): Promise<number> {
  const { rows } = await db.query<{ n: number }>(
    `select (select count(*) from figures f join offer_threads t on t.id = f.thread_id
         where f.state = ${figureState('live')} and f.by = 'buyer' and t.state = ${threadState('open')} and (f.lapses_at is null or f.lapses_at > $1))
       + (select count(*) from sales where stage ${oneOf(AWAITING_STAGES)})
       + (select count(*) from letters l join auctions a on a.id = l.auction_id where ${DEPOSIT_DUE})
       + (select count(*) from listings l join marketplaces v on v.id = l.marketplace_id where l.status = ${word<ListingStatus>('unproved')} and v.link_url is not null) as n`,
    [new Date(at)],
  );
  return rows[0]?.n ?? 0;
}
