import { FLAGS, type LedgerColumns } from '@/core/ledger';
import { type BinaryFields, copyRow } from './copyRow';
import type { Database } from './pool';

const ms = (column: string) => `(round(date_part('epoch', ${column}) * 1000)::int8)`;
const instants = (column: string) => `float8send(coalesce(round(date_part('epoch', ${column}) * 1000), 'NaN'))`;
const joined = (bytes: string) => `string_agg(${bytes}, ''::bytea)`;
const sparse = (value: string, when: string) =>
  `coalesce(jsonb_object_agg(place, ${value}) filter (where ${when}), '{}'::jsonb)`;

/** How the database says each small fact of a name: as text, so that one expression packs them all. */
const FACTS: Readonly<Record<keyof typeof FLAGS, string>> = {
  setting: 'setting',
  standing: 'standing',
  purpose: 'purpose',
  neverLost: 'never_lost',
  lock: 'lock',
  privacy: 'privacy',
  registeredDay: 'registered_day',
  termEndDay: 'term_end_day',
  requested: 'requested',
  requestedLock: "case when requested_lock then 'on' when not requested_lock then 'off' end",
  requestedPrivacy: "case when requested_privacy then 'on' when not requested_privacy then 'off' end",
  rescue: 'case when rescue_for = term_end then rescue_verdict end',
};

/** A value of `FLAGS` as SQL writes it. */
const literal = (value: string | boolean) => (typeof value === 'string' ? `'${value}'` : String(value));

/** The small facts, packed as `FLAGS` says: what is null stands first among its values, where it may be null. */
const PACKED = (Object.keys(FLAGS) as (keyof typeof FLAGS)[])
  .map((fact) => {
    const { values, from } = FLAGS[fact];
    const whens = (values as readonly (string | boolean | null)[])
      .flatMap((value, code) => (value === null ? [] : [`when ${literal(value)} then ${code << from}`]))
      .join(' ');
    return `case ${FACTS[fact]} ${whens} else 0 end`;
  })
  .join(' | ');

const SPARSE = `jsonb_build_object(
  'unicode', ${sparse('"unicode"', '"unicode" <> ascii')},
  'observed', ${sparse(`jsonb_build_object('phase', observed, 'at', ${ms('observed_at')})`, 'observed is not null')},
  'stalledBy', ${sparse('setting_evidence', "setting = 'stalled' and setting_evidence is not null")},
  'bestOffer', ${sparse("jsonb_build_object('minor', best_offer_minor, 'currency', best_offer_currency)", 'best_offer_minor is not null')},
  'saleChance', ${sparse('sale_chance', 'sale_chance is not null')},
  'confirmMailBy', ${sparse(ms('confirm_mail_by'), 'confirm_mail_by is not null')},
  'transferred', ${sparse(`jsonb_build_object('at', ${ms('transferred')}, 'day', transferred_day)`, 'transferred is not null')},
  'holderChanged', ${sparse(`jsonb_build_object('at', ${ms('holder_changed')}, 'day', holder_changed_day, 'waived', holder_lock_waived)`, 'holder_changed is not null')},
  'gracePaid', ${sparse(ms('grace_paid'), 'grace_paid is not null')},
  'notes', ${sparse('notes', "notes <> ''")}
)`;

/** A column of words of names as its own dictionary and two columns: see `WordColumn`. */
const words = (column: string) => `
  ${column}_of as materialized (select place, word, ordinal from n cross join unnest(${column}) with ordinality as w(word, ordinal) where ${column} <> '{}'),
  ${column}_words as (select word, row_number() over (order by word) - 1 as code from (select distinct word from ${column}_of) d)`;
const wordFields = (column: string) => `
  (select coalesce(json_agg(word order by code), '[]')::text from ${column}_words),
  (select ${joined('int4send(place)')} from (select place from ${column}_of order by place, ordinal) o),
  (select ${joined('int2send(code::int2)')} from (select code from ${column}_of join ${column}_words using (word) order by place, ordinal) o)`;

/** One row that holds the whole ledger: each field is a column of it, put together by the database in one snapshot. */
const query = (whose: string) => `
  with n as materialized (
    select *, (row_number() over (order by ascii) - 1)::int4 as place from names where gone_at is null${whose}
  ), endings as (
    select ending, row_number() over (order by ending) - 1 as code from (select distinct ending from n) e
  ), spent as materialized (
    select place, currency, sum(minor) as minor from spending join n on n.id = spending.name_id group by place, currency
  ), currencies as (
    select currency, row_number() over (order by currency) - 1 as code
    from (select asking_currency as currency from n where asking_currency is not null union select currency from spent) c
  ), ${words('tags')}, ${words('statuses')},
  main as (
    select string_agg(ascii, E'\\n') as ascii, ${joined('int4send(id)')} as id, ${joined('int4send(account_id)')} as account_id,
      ${joined('int2send(ending_code::int2)')} as ending, ${joined(`int4send(${PACKED})`)} as flags,
      ${joined(instants('registered'))} as registered, ${joined(instants('term_end'))} as term_end,
      ${joined(instants('setting_since'))} as setting_since, ${joined(instants('checked_at'))} as checked_at,
      ${joined("float8send(coalesce(asking_minor::float8, 'NaN'))")} as asking,
      ${joined('int2send(coalesce(currency_code, 0)::int2)')} as asking_currency
    from (
      select n.*, e.code as ending_code, c.code as currency_code
      from n join endings e using (ending) left join currencies c on c.currency = n.asking_currency order by place
    ) o
  )
  select main.*,
    (select coalesce(json_agg(ending order by code), '[]')::text from endings),
    (select coalesce(json_agg(currency order by code), '[]')::text from currencies),
    (select ${joined('int4send(place)')} from (select place from spent order by place, currency) s),
    (select ${joined('float8send(minor::float8)')} from (select minor from spent order by place, currency) s),
    (select ${joined('int2send(code::int2)')} from (select code from spent join currencies using (currency) order by place, currency) s),
    ${wordFields('tags')}, ${wordFields('statuses')},
    (select ${SPARSE}::text from n)
  from main`;

/** The names of the ledger in columns, all of them or those with some ids. */
export async function selectLedgerColumns(
  db: Database,
  nameIds: readonly number[] | null = null,
): Promise<LedgerColumns> {
  const whose = nameIds === null ? '' : ` and id = any('{${nameIds.map(Number).join(',')}}')`;
  return columnsFrom(await copyRow(db, query(whose)));
}

/** Reads the fields in the order in which the query names them. */
function columnsFrom(fields: BinaryFields): LedgerColumns {
  const ascii = fields.text();
  const [id, accountId, ending, flags] = [fields.int32(), fields.int32(), fields.uint16(), fields.int32()];
  const [registered, termEnd, settingSince, checkedAt] = [
    fields.float64(),
    fields.float64(),
    fields.float64(),
    fields.float64(),
  ];
  const [asking, askingCurrency] = [fields.float64(), Uint8Array.from(fields.uint16())];
  const endings = fields.json<string[]>();
  const currencies = fields.json<string[]>();
  const spent = { place: fields.int32(), minor: fields.float64(), currency: Uint8Array.from(fields.uint16()) };
  const wordColumn = () => ({ words: fields.json<string[]>(), place: fields.int32(), code: fields.uint16() });
  const [tags, statuses] = [wordColumn(), wordColumn()];
  return {
    ascii: ascii === '' ? '' : `${ascii}\n`,
    id,
    accountId,
    endings,
    ending,
    flags,
    registered,
    termEnd,
    settingSince,
    checkedAt,
    currencies,
    asking,
    askingCurrency,
    spent,
    tags,
    statuses,
    sparse: fields.json<LedgerColumns['sparse']>(),
  };
}
