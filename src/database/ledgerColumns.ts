import { FLAGS, type LedgerColumns } from '@/core/ledger';
import { type BinaryFields, copyOut } from './copyOut';
import type { Database } from './pool';

const ms = (column: string) => `(round(date_part('epoch', ${column}) * 1000)::int8)`;
const instants = (column: string) => `coalesce(round(date_part('epoch', ${column}) * 1000), 'NaN')`;
const joined = (bytes: string) => `string_agg(${bytes}, ''::bytea)`;
const sparse = (value: string, when: string) =>
  `coalesce(jsonb_object_agg(id, ${value}) filter (where ${when}), '{}'::jsonb)`;

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

/** What many names have alike, each once, with the number by which a name refers to it. */
const dictionary = (name: string, values: string) =>
  `${name} as (select value, row_number() over (order by value) - 1 as code from (${values}) d(value))`;
const wordsOf = (name: string) => `(select coalesce(json_agg(value order by code), '[]')::text from ${name})`;

/**
 * One row that holds the whole ledger: each field is a column of it, put together by the database in one snapshot. The names are sorted
 * once; what else is said of a name goes by its id.
 */
const query = (whose: string) => `
  with n as not materialized (select * from names where gone_at is null${whose}),
  spent as materialized (select name_id, currency, sum(minor) as minor from spending where name_id in (select id from n) group by name_id, currency),
  ${dictionary('endings', 'select distinct ending from n')},
  ${dictionary('tag_lists', 'select distinct tags from n')},
  ${dictionary('status_lists', 'select distinct statuses from n')},
  ${dictionary('currencies', 'select asking_currency from n where asking_currency is not null union select currency from spent')},
  main as (
    select string_agg(ascii, E'\n') as ascii, ${joined('int4send(id)')} as id, ${joined('int4send(account_id)')} as account_id,
      ${joined('int2send(ending_code)')} as ending, ${joined('int4send(flags)')} as flags,
      ${joined('float8send(registered)')} as registered, ${joined('float8send(term_end)')} as term_end,
      ${joined('float8send(setting_since)')} as setting_since, ${joined('float8send(checked_at)')} as checked_at,
      ${joined('float8send(asking)')} as asking, ${joined('int2send(currency_code)')} as asking_currency,
      ${joined('int4send(tags_code)')} as tags, ${joined('int4send(statuses_code)')} as statuses
    from (
      select ascii, id, account_id, e.code::int2 as ending_code, ${PACKED} as flags,
        ${instants('registered')} as registered, ${instants('term_end')} as term_end,
        ${instants('setting_since')} as setting_since, ${instants('checked_at')} as checked_at,
        coalesce(asking_minor::float8, 'NaN') as asking, coalesce(array_position((select array_agg(value order by code) from currencies), asking_currency) - 1, 0)::int2 as currency_code,
        t.code::int4 as tags_code, s.code::int4 as statuses_code
      from n join endings e on e.value = n.ending join tag_lists t on t.value = n.tags join status_lists s on s.value = n.statuses
      order by ascii
    ) o
  )
  select main.*, ${wordsOf('endings')}, ${wordsOf('currencies')}, ${wordsOf('tag_lists')}, ${wordsOf('status_lists')},
    (select ${joined('int4send(name_id)')} from (select name_id from spent order by name_id, currency) s),
    (select ${joined('float8send(minor::float8)')} from (select minor from spent order by name_id, currency) s),
    (select ${joined('int2send(code::int2)')} from (select code from spent join currencies on value = currency order by name_id, currency) s),
    (select ${SPARSE}::text from n)
  from main`;

/** The names of the ledger in columns, all of them or those with some ids. */
export async function selectLedgerColumns(
  db: Database,
  nameIds: readonly number[] | null = null,
): Promise<LedgerColumns> {
  const whose = nameIds === null ? '' : ` and id = any('{${nameIds.map(Number).join(',')}}')`;
  return columnsFrom(await copyOut(db, query(whose)));
}

/** Reads the fields in the order in which the query names them. */
function columnsFrom(fields: BinaryFields): LedgerColumns {
  const ascii = fields.text();
  const names = {
    ascii: ascii === '' ? '' : `${ascii}\n`,
    id: fields.int32(),
    accountId: fields.int32(),
    ending: fields.uint16(),
    flags: fields.int32(),
    registered: fields.float64(),
    termEnd: fields.float64(),
    settingSince: fields.float64(),
    checkedAt: fields.float64(),
    asking: fields.float64(),
    askingCurrency: Uint8Array.from(fields.uint16()),
    tags: fields.int32(),
    statuses: fields.int32(),
    endings: fields.json<string[]>(),
    currencies: fields.json<string[]>(),
    tagLists: fields.json<string[][]>(),
    statusLists: fields.json<string[][]>(),
  };
  const [ids, minor, currency] = [fields.int32(), fields.float64(), Uint8Array.from(fields.uint16())];
  const byId = fields.json<LedgerColumns['sparse']>();
  const places = new Map(Array.from(names.id, (id, place) => [id, place]));
  const placeOf = (id: number) => places.get(id) as number;
  // Lines come by id; a name's own stay in their order. Place and line in one number: sorted many times quicker than by comparing.
  const lines = ids.length;
  const order = Float64Array.from(ids, (id, line) => placeOf(id) * lines + line)
    .sort()
    .map((one) => one % lines);
  return {
    ...names,
    spent: {
      place: Int32Array.from(order, (line) => placeOf(ids[line] as number)),
      minor: Float64Array.from(order, (line) => minor[line] as number),
      currency: Uint8Array.from(order, (line) => currency[line] as number),
    },
    sparse: Object.fromEntries(
      Object.entries(byId).map(([what, values]) => [
        what,
        Object.fromEntries(Object.entries(values).map(([id, value]) => [placeOf(Number(id)), value])),
      ]),
    ) as unknown as LedgerColumns['sparse'],
  };
}
