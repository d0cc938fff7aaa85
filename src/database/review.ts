import type { DaySum, ReviewBy, ReviewGroup, ReviewMoney, ReviewPart } from '@/core/journal';
import type { Day } from '@/core/time';
import type { Queryable } from './pool';

/** What a review looks at: the entries of some days, divided by something; `null` for no bound. */
export interface ReviewAsked {
  readonly from: Day | null;
  readonly to: Day | null;
  readonly by: ReviewBy;
}

/** How each entry is put under a key; a name stands under each of its tags. */
const KEYS: Readonly<Record<ReviewBy, { readonly key: string; readonly join: string }>> = {
  year: { key: "to_char(e.on_day, 'YYYY')", join: '' },
  ending: { key: 'n.ending', join: '' },
  tag: {
    key: "coalesce(t.tag, '')",
    join: 'left join lateral (select unnest(n.tags) as tag) t on true',
  },
  account: { key: 'a.label', join: 'join accounts a on a.id = n.account_id' },
};

const PART = `case when e.kind = 'sale' then 'price' when e.sale_id is not null then 'fee' else 'cost' end`;
/** What is received stands in the ledger below nothing. */
const MINOR = `(case when e.kind = 'sale' then -e.minor else e.minor end)`;
const WITHIN = '($1::date is null or e.on_day >= $1) and ($2::date is null or e.on_day <= $2)';

/** The money of a period, and that of the names sold in it, by key, part, day and currency. */
export async function selectReview(
  db: Queryable,
  { from, to, by }: ReviewAsked,
): Promise<ReviewMoney & { readonly names: number }> {
  const { key, join } = KEYS[by];
  const days = [from, to];
  const entries = `entries e join names n on n.id = e.name_id ${join}`;
  // The year of a name that is sold is the year of its sale, whenever its costs were.
  const soldKey = by === 'year' ? 's.year' : key;
  const [groups, period, sold, all] = await Promise.all([
    db.query<ReviewGroup>(
      `select ${key} as key, count(distinct e.name_id)::int as names,
         count(distinct e.id) filter (where e.kind = 'sale' and e.corrects is null and not exists (select from entries c where c.corrects = e.id))::int as sales
       from ${entries} where ${WITHIN} group by 1 order by 1`,
      days,
    ),
    db.query<DaySum>(
      `select ${key} as key, ${PART} as part, e.on_day as day, e.currency, sum(${MINOR})::float8 as minor
       from ${entries} where ${WITHIN} group by 1, 2, 3, 4`,
      days,
    ),
    db.query<DaySum>(
      `with s as (
         select e.name_id, max(to_char(e.on_day, 'YYYY')) as year from entries e
         where e.kind = 'sale' and ${WITHIN} group by e.name_id having sum(e.minor) < 0)
       select ${soldKey} as key, ${PART} as part, e.on_day as day, e.currency, sum(${MINOR})::float8 as minor
       from ${entries} join s on s.name_id = e.name_id group by 1, 2, 3, 4`,
      days,
    ),
    db.query<{ names: number }>(`select count(distinct e.name_id)::int as names from entries e where ${WITHIN}`, days),
  ]);
  return { groups: groups.rows, period: period.rows, sold: sold.rows, names: all.rows[0]?.names ?? 0 };
}

/** An entry as a review opens it. */
export interface ReviewEntry {
  readonly id: number;
  readonly nameId: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly account: string;
  readonly day: Day;
  readonly kind: string;
  readonly part: ReviewPart;
  readonly minor: number;
  readonly currency: string;
  readonly paymentMethod: string;
  readonly reference: string;
  readonly note: string;
  readonly isCounter: boolean;
}

/** The entries behind a figure: of one key and one part, or of all. The first `limit` of them, by day; with how many there are. */
export async function selectReviewEntries(
  db: Queryable,
  asked: ReviewAsked & { readonly key: string | null; readonly part: ReviewPart | null },
  limit: number,
): Promise<{ readonly total: number; readonly entries: ReviewEntry[] }> {
  const { key, join } = KEYS[asked.by];
  const account = asked.by === 'account' ? '' : 'join accounts a on a.id = n.account_id';
  const where = `${WITHIN} and ($3::text is null or ${key} = $3) and ($4::text is null or ${PART} = $4)`;
  const entries = `entries e join names n on n.id = e.name_id ${join} ${account}`;
  // Without a key a name is told once, however many tags it has.
  const { rows } = await db.query<ReviewEntry & { readonly total: number }>(
    `select *, count(*) over ()::int as total from (
       select distinct on (e.on_day, e.id) e.id, e.name_id as "nameId", n.ascii, n."unicode", a.label as account, e.on_day as day, e.kind, ${PART} as part,
         ${MINOR}::float8 as minor, e.currency, e.payment_method as "paymentMethod", e.reference, e.note, e.corrects is not null as "isCounter"
       from ${entries} where ${where} order by e.on_day, e.id) found
     order by day, id limit $5`,
    [asked.from, asked.to, asked.key, asked.part, limit],
  );
  return { total: rows[0]?.total ?? 0, entries: rows.map(({ total: _, ...entry }) => entry) };
}

/** What was spent (above nothing) and received in each month after a day, of names that were in the ledger before an instant, by currency and day. */
export async function selectCashSince(
  db: Queryable,
  from: Day,
  addedBefore: Date,
): Promise<{ day: Day; currency: string; minor: number }[]> {
  const { rows } = await db.query<{ day: Day; currency: string; minor: number }>(
    `select e.on_day as day, e.currency, sum(-e.minor)::float8 as minor from entries e join names n on n.id = e.name_id
     where e.on_day > $1 and n.added_at <= $2 group by 1, 2 order by 1`,
    [from, addedBefore],
  );
  return rows;
}

/** The years in which anything was spent or received, the last first. */
export async function selectReviewYears(db: Queryable): Promise<number[]> {
  const { rows } = await db.query<{ year: number }>(
    'select distinct extract(year from on_day)::int as year from entries order by 1 desc',
  );
  return rows.map(({ year }) => year);
}
