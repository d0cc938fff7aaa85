import type { Instant } from '@/core/time';
import { patchNamesFrom } from './changes';
import { LISTED, namedAccounts, type RowOutcome, type StagedSurvey } from './importRows';
import type { WrittenCounts } from './imports';
import { insertNamesFrom } from './names';
import { allowMemory, type Transaction } from './pool';

/** What a list says of a new name, as columns of `names`: in the order of their index, which is filled most quickly so. */
const NEW = `
  select i.ascii, i."unicode" as uni, i.ending, 'line ' || i.line as evidence, coalesce(a.id, $4) as account_id,
    case when i.setting is not null then $2::timestamptz end as setting_since,
    case when i.setting is not null then $6::text end as setting_evidence, case when i.setting is not null then $5::text end as standing, ${LISTED.map((column) => `i.${column}`).join(', ')}
  from import_rows i left join ${namedAccounts('unnest($7::text[]) as account')} a on a.said = i.account
  where i.import_id = $3 and i.outcome = 'new' and i.taken order by i.ascii`;

const CHANGED = `
  select n.id as name_id, 'line ' || i.line as evidence,
    i.after - 'account' - 'paid' || case when a.id is null then '{}' else jsonb_build_object('account_id', a.id) end
      || case when i.before ? 'setting' then jsonb_build_object('standing', $4::text, 'setting_since', $3::timestamptz, 'setting_evidence', $5::text) else '{}' end as patch
  from import_rows i join names n on n.ascii = i.ascii left join ${namedAccounts('unnest($6::text[]) as account')} a on a.said = i.account
  where i.import_id = $2 and i.outcome in ('changed', 'conflict') and i.taken`;

const GONE = `
  select n.id as name_id, 'missing from a full list' as evidence, jsonb_build_object('gone_at', $3::timestamptz) as patch
  from import_rows i join names n on n.ascii = i.ascii where i.import_id = $2 and i.outcome = 'missing' and i.taken`;

/** Names of which an account says itself what was only believed of their auto-renew. */
const CONFIRMED = `
  select n.id as name_id, 'line ' || i.line as evidence,
    jsonb_build_object('standing', 'confirmed', 'setting_since', $3::timestamptz, 'setting_evidence', $4::text) as patch
  from import_rows i join names n on n.ascii = i.ascii
  where i.import_id = $2 and i.outcome in ('unchanged', 'changed', 'conflict') and i.setting = n.setting and n.standing <> 'confirmed'`;

/** How the rows of an import are written. */
export interface Writing {
  readonly batchId: number;
  /** Holds rows that name no account. */
  readonly accountId: number | null;
  /** The yearly registry fee of today. */
  readonly feeMinor: number;
  readonly at: Instant;
  /** The list is an account's own answer, so what it says of auto-renew is confirmed. */
  readonly confirmed: boolean;
}

/**
 * Writes the taken rows of an import that has been compared: new names, changed names with their history, names no longer
 * there, prices paid as entries, and renewal prices as inferred prices. Each in one statement; the caller's transaction
 * makes it all or nothing. What the survey says there is nothing of is not looked for.
 */
export async function writeStagedRows(
  tx: Transaction,
  importId: string,
  { counts, accounts, lacksAccount, isPaid }: StagedSurvey,
  { batchId, accountId, feeMinor, at, confirmed }: Writing,
): Promise<WrittenCounts> {
  await allowMemory(tx);
  const now = new Date(at);
  const [standing, evidence] = confirmed ? ['confirmed', 'the account’s own answer'] : ['believed', 'imported list'];
  const taken = (...outcomes: readonly RowOutcome[]) => outcomes.some((outcome) => counts[outcome].taken > 0);
  const columns = ['account_id', 'setting_since', 'setting_evidence', 'standing', ...LISTED] as const;
  const isAdding = taken('new');
  const added = isAdding
    ? await insertNamesFrom(tx, batchId, at, columns, NEW, [importId, accountId, standing, evidence, accounts])
    : 0;
  // Without fresh statistics the joins below would be planned for the few names there were before. A small sample is enough for them:
  // the server sees to better ones, and to the other columns.
  if (added > 0)
    await tx.query('set local default_statistics_target = 10; analyze names (id, ascii, account_id, ending, gone_at)');
  if (confirmed) await patchNamesFrom(tx, batchId, CONFIRMED, [importId, now, evidence]);
  const isChanging = taken('changed', 'conflict');
  const written = {
    added,
    changed: isChanging ? await patchNamesFrom(tx, batchId, CHANGED, [importId, now, standing, evidence, accounts]) : 0,
    gone: taken('missing') ? await patchNamesFrom(tx, batchId, GONE, [importId, now]) : 0,
    entries: isPaid && (isAdding || isChanging) ? await writePaid(tx, importId, batchId) : 0,
    prices: await learnPrices(tx, importId, batchId, lacksAccount, feeMinor, at),
  };
  if (written.entries > 0) await tx.query('analyze entries');
  return written;
}

/** Prices paid become entries; one that differs from what stands there is put right by a counter-entry first. */
async function writePaid(tx: Transaction, importId: string, batchId: number): Promise<number> {
  const paid = `
    select n.id as name_id, coalesce(i.paid_on, (n.registered at time zone 'UTC')::date, (n.added_at at time zone 'UTC')::date) as on_day,
      i.paid_minor as minor, i.paid_currency as currency
    from import_rows i join names n on n.ascii = i.ascii
    where i.import_id = $1 and i.taken and i.paid_minor is not null and (i.outcome = 'new' or (i.outcome in ('changed', 'conflict') and i.before ? 'paid'))`;
  // A name that was new when it was previewed may have come by another list since.
  await tx.query(
    `insert into entries (name_id, batch_id, on_day, kind, minor, currency, note, corrects)
     select e.name_id, $2, e.on_day, e.kind, -e.minor, e.currency, 'put right by an imported list', e.id
     from (${paid}) p join entries e on e.name_id = p.name_id and e.kind = 'bought' and e.corrects is null
     where not exists (select from entries c where c.corrects = e.id)`,
    [importId, batchId],
  );
  const { rowCount } = await tx.query(
    `insert into entries (name_id, batch_id, on_day, kind, minor, currency, note) select name_id, $2, on_day, 'bought', minor, currency, 'from an imported list' from (${paid}) p`,
    [importId, batchId],
  );
  return rowCount ?? 0;
}

/** The taken rows that say a renewal price. */
const PRICED =
  "i.import_id = $1 and i.taken and i.outcome in ('new', 'changed', 'unchanged', 'conflict') and i.renewal_minor is not null";

/** How many rows say which price of which account and ending: by the accounts that they name. */
const PRICED_THERE = `
  select a.id as account_id, l.ending, l.currency, l.minor, l.names
  from (select account, ending, renewal_currency as currency, renewal_minor as minor, count(*) as names from import_rows i where ${PRICED} group by 1, 2, 3, 4) l
    join accounts a on lower(a.label) = lower(l.account)`;

/** The same of rows that name no account: their names have one. */
const PRICED_ALONE = `
  select n.account_id, n.ending, i.renewal_currency as currency, i.renewal_minor as minor, count(*) as names
  from import_rows i join names n on n.ascii = i.ascii where ${PRICED} and i.account is null group by 1, 2, 3, 4`;

/**
 * Renewal prices in the list: the one most names of an account and ending carry becomes the ending's inferred price, any
 * other a price of the name's own. A price that somebody gave is never replaced.
 */
async function learnPrices(
  tx: Transaction,
  importId: string,
  batchId: number,
  lacksAccount: boolean,
  feeMinor: number,
  at: Instant,
): Promise<number> {
  // The names of a price are looked for only where one differs from the usual: in most lists none does.
  const { rowCount } = await tx.query(
    `with said as (
       select account_id, ending, currency, minor,
         row_number() over (partition by account_id, ending order by sum(names) desc, minor, currency) = 1 as is_usual
       from (${lacksAccount ? `${PRICED_THERE} union all ${PRICED_ALONE}` : PRICED_THERE}) p group by account_id, ending, currency, minor
     ), known as (
       select account_id, name_id, ending, currency, year_minor, fee_included, origin,
         row_number() over (partition by account_id, name_id, ending order by from_day desc) as newest
       from prices where action = 'renew'
     ), wanted as (
       select account_id, null::int as name_id, ending, currency, minor from said where is_usual
       union all
       select n.account_id, n.id, n.ending, i.renewal_currency, i.renewal_minor from import_rows i join names n on n.ascii = i.ascii
       where ${PRICED} and (select bool_or(not is_usual) from said)
         and exists (select from said s where not s.is_usual and s.account_id = n.account_id and s.ending = n.ending
           and s.currency = i.renewal_currency and s.minor = i.renewal_minor)
     )
     insert into prices (account_id, name_id, ending, action, currency, year_minor, fee_included, from_day, origin, taught_by_batch)
     select w.account_id, w.name_id, w.ending, 'renew', w.currency, w.minor, true, $2, 'inferred', $4 from wanted w
     where not exists (
       select from known k where k.newest = 1 and k.account_id = w.account_id and k.ending = w.ending
         and (k.name_id is not distinct from w.name_id or k.name_id is null)
         and (k.currency = w.currency and w.minor in (k.year_minor, k.year_minor + case when k.fee_included then 0 else $3 end)
           or k.name_id is not distinct from w.name_id and k.origin <> 'inferred'))
     on conflict (account_id, name_id, ending, action, item, from_day) do update set year_minor = excluded.year_minor, currency = excluded.currency,
       taught_by_batch = excluded.taught_by_batch, taught_by_entry = null
     where prices.origin = 'inferred'`,
    [importId, new Date(at).toISOString().slice(0, 10), feeMinor, batchId],
  );
  return rowCount ?? 0;
}
