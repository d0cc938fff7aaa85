import type { Queryable } from './pool';

/** A part of the program, by what it last said of itself. Ages are by the clock of the database. */
export interface PartRow {
  readonly name: string;
  readonly ageSeconds: number;
  readonly upSeconds: number;
}

/** A part says that it is well. `isNew` when it has just started. */
export async function beat(db: Queryable, name: string, isNew: boolean): Promise<void> {
  await db.query(
    `insert into parts (name, started_at, seen_at) values ($1, now(), now())
     on conflict (name) do update set seen_at = now(), started_at = case when $2 then now() else parts.started_at end`,
    [name, isNew],
  );
}

export async function selectParts(db: Queryable): Promise<PartRow[]> {
  const { rows } = await db.query<PartRow>(
    `select name, extract(epoch from now() - seen_at)::int as "ageSeconds", extract(epoch from now() - started_at)::int as "upSeconds"
     from parts order by name`,
  );
  return rows;
}

/** How something that happens by itself went last. */
export interface JobResult {
  readonly job: string;
  readonly doneAgoSeconds: number | null;
  readonly failedAgoSeconds: number | null;
  /** Why it failed, in words; `null` when it went well last. */
  readonly problem: string | null;
}

export async function noteJob(db: Queryable, job: string, problem: string | null): Promise<void> {
  await db.query(
    `insert into job_results (job, done_at, failed_at, problem)
     values ($1, case when $2::text is null then now() end, case when $2::text is not null then now() end, $2)
     on conflict (job) do update set problem = excluded.problem, done_at = coalesce(excluded.done_at, job_results.done_at),
       failed_at = coalesce(excluded.failed_at, job_results.failed_at)`,
    [job, problem],
  );
}

export async function selectJobResults(db: Queryable): Promise<JobResult[]> {
  const { rows } = await db.query<JobResult>(
    `select job, extract(epoch from now() - done_at)::int as "doneAgoSeconds", extract(epoch from now() - failed_at)::int as "failedAgoSeconds",
       problem from job_results order by job`,
  );
  return rows;
}

export type PartnerKind = 'account' | 'marketplace';

/** A partner that is left alone for a while because it did not answer. */
export interface PartnerPause {
  readonly partnerId: number;
  readonly failures: number;
  readonly waitSeconds: number;
  readonly problem: string;
}

export async function selectPauses(db: Queryable, kind: PartnerKind): Promise<PartnerPause[]> {
  const { rows } = await db.query<PartnerPause>(
    `select partner_id as "partnerId", failures, greatest(0, extract(epoch from not_before - now()))::int as "waitSeconds", problem
     from partner_pauses where kind = $1`,
    [kind],
  );
  return rows;
}

/** NetProceeds a partner alone for `seconds`, after so many failures in a row. */
export async function pausePartner(
  db: Queryable,
  kind: PartnerKind,
  partnerId: number,
  { failures, seconds, problem }: { readonly failures: number; readonly seconds: number; readonly problem: string },
): Promise<void> {
  await db.query(
    `insert into partner_pauses (kind, partner_id, failures, not_before, problem) values ($1, $2, $3, now() + make_interval(secs => $4), $5)
     on conflict (kind, partner_id) do update set failures = excluded.failures, not_before = excluded.not_before, problem = excluded.problem`,
    [kind, partnerId, failures, seconds, problem],
  );
}

/** The partner answers again. */
export async function endPause(db: Queryable, kind: PartnerKind, partnerId: number): Promise<void> {
  await db.query('delete from partner_pauses where kind = $1 and partner_id = $2', [kind, partnerId]);
}
