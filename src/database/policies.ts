import type { Policy, RegistryFee } from '@/core/lifecycle';
import type { Queryable } from './pool';

const POLICY = `
  select ending, late_days as "lateDays", redemption_days as "redemptionDays", pending_restore_days as "pendingRestoreDays",
    pending_delete_days as "pendingDeleteDays", refundable_days as "refundableDays", terms, transfer_years as "transferYears",
    transfer_lock_days as "transferLockDays", ceiling_years as "ceilingYears", yearly_fee as "yearlyFee", source,
    source_note as "sourceNote", source_date as "sourceDate", verified, coalesce(holder_lock_days, transfer_lock_days) as "holderLockDays", letters
  from policies order by ending`;

export async function selectPolicies(db: Queryable): Promise<Policy[]> {
  return (await db.query<Policy>(POLICY)).rows;
}

/** Writes policies, replacing the rows of the same endings. */
export async function upsertPolicies(db: Queryable, policies: readonly Policy[]): Promise<void> {
  await db.query(
    `insert into policies
       select ending, "lateDays", "redemptionDays", "pendingRestoreDays", "pendingDeleteDays", "refundableDays", terms, "transferYears",
         "transferLockDays", "ceilingYears", "yearlyFee", source, "sourceNote", "sourceDate", verified, "holderLockDays", letters
       from jsonb_to_recordset($1::jsonb) as p(ending text, "lateDays" int, "redemptionDays" int, "pendingRestoreDays" int,
         "pendingDeleteDays" int, "refundableDays" int, terms jsonb, "transferYears" int, "transferLockDays" int, "ceilingYears" int,
         "yearlyFee" boolean, source text, "sourceNote" text, "sourceDate" date, verified boolean, "holderLockDays" int, letters text)
     on conflict (ending) do update set late_days = excluded.late_days, redemption_days = excluded.redemption_days,
       pending_restore_days = excluded.pending_restore_days, pending_delete_days = excluded.pending_delete_days, refundable_days = excluded.refundable_days,
       terms = excluded.terms, transfer_years = excluded.transfer_years, transfer_lock_days = excluded.transfer_lock_days,
       ceiling_years = excluded.ceiling_years, yearly_fee = excluded.yearly_fee, source = excluded.source,
       source_note = excluded.source_note, source_date = excluded.source_date, verified = excluded.verified,
       holder_lock_days = excluded.holder_lock_days, letters = excluded.letters`,
    [JSON.stringify(policies)],
  );
}

export async function deletePolicy(db: Queryable, ending: string): Promise<void> {
  await db.query("delete from policies where ending = $1 and ending <> '*'", [ending]);
}

export async function selectRegistryFees(db: Queryable): Promise<RegistryFee[]> {
  return (
    await db.query<RegistryFee>(
      'select from_day as "from", minor, currency, source from registry_fees order by from_day',
    )
  ).rows;
}

export async function upsertRegistryFees(db: Queryable, fees: readonly RegistryFee[]): Promise<void> {
  await db.query(
    `insert into registry_fees (from_day, currency, minor, source)
       select "from", currency, minor, source from jsonb_to_recordset($1::jsonb) as f("from" date, currency text, minor int, source text)
     on conflict (from_day, currency) do update set minor = excluded.minor, source = excluded.source`,
    [JSON.stringify(fees)],
  );
}
