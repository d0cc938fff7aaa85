import type { Assumptions, SaleRate } from '@/core/odds';
import type { Fan } from '@/core/prospects';
import type { Instant } from '@/core/time';
import type { MadeBy } from './changes';
import type { Queryable, Transaction } from './pool';

/** Assumptions under a name. */
export interface AssumptionSet {
  readonly id: number;
  readonly label: string;
  /** What was said; what has been thought of since is taken as usual. */
  readonly assumptions: Partial<Assumptions>;
  readonly madeAt: Instant;
}

export async function selectAssumptionSets(db: Queryable): Promise<AssumptionSet[]> {
  const { rows } = await db.query<AssumptionSet>(
    'select id, label, assumptions, made_at as "madeAt" from assumption_sets order by lower(label)',
  );
  return rows;
}

/** Keeps a set under its name; one of that name takes the new assumptions. Answers its id. */
export async function upsertAssumptionSet(
  tx: Transaction,
  label: string,
  assumptions: Assumptions,
  at: Instant,
): Promise<number> {
  const { rows } = await tx.query<{ id: number }>(
    `insert into assumption_sets (label, assumptions, made_at) values ($1, $2, $3)
     on conflict (label) do update set assumptions = excluded.assumptions, made_at = excluded.made_at returning id`,
    [label, JSON.stringify(assumptions), new Date(at)],
  );
  return rows[0]?.id as number;
}

/** False when there was none with this id. */
export async function deleteAssumptionSet(tx: Transaction, id: number): Promise<boolean> {
  return (await tx.query('delete from assumption_sets where id = $1', [id])).rowCount === 1;
}

/** A kept forecast without its names. Amounts are minor units of `currency`. */
export interface ForecastRow {
  readonly id: number;
  readonly label: string;
  readonly madeAt: Instant;
  readonly madeBy: MadeBy;
  readonly currency: string;
  readonly months: number;
  readonly seed: number;
  readonly paths: number;
  readonly assumptions: Partial<Assumptions>;
  readonly openingMinor: number;
  readonly fan: Fan;
  /** What was certain to be paid in each month. */
  readonly costs: readonly number[];
  readonly rates: readonly (SaleRate & { readonly key: string })[];
}

/** The names that were on offer when a forecast was made, by their ids, groups and factors. */
export interface ForecastNames {
  readonly nameIds: readonly number[];
  readonly groups: readonly number[];
  readonly factors: readonly number[];
}

const COLUMNS = `id, label, made_at as "madeAt", made_by as "madeBy", currency, months, seed, paths, assumptions,
  opening_minor as "openingMinor", fan, costs, rates`;

export async function selectForecasts(db: Queryable): Promise<ForecastRow[]> {
  return (await db.query<ForecastRow>(`select ${COLUMNS} from forecasts order by made_at desc, id desc`)).rows;
}

export async function selectForecast(db: Queryable, id: number): Promise<(ForecastRow & ForecastNames) | null> {
  const { rows } = await db.query<ForecastRow & ForecastNames>(
    `select ${COLUMNS}, name_ids as "nameIds", name_groups as groups, factors from forecasts where id = $1`,
    [id],
  );
  return rows[0] ?? null;
}

export async function insertForecast(tx: Transaction, draft: Omit<ForecastRow, 'id'> & ForecastNames): Promise<number> {
  const { rows } = await tx.query<{ id: number }>(
    `insert into forecasts (label, made_at, made_by, currency, months, seed, paths, assumptions, opening_minor, fan, costs, rates, name_ids, name_groups, factors)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15) returning id`,
    [
      draft.label,
      new Date(draft.madeAt),
      draft.madeBy,
      draft.currency,
      draft.months,
      draft.seed,
      draft.paths,
      JSON.stringify(draft.assumptions),
      draft.openingMinor,
      JSON.stringify(draft.fan),
      draft.costs,
      JSON.stringify(draft.rates),
      draft.nameIds,
      draft.groups,
      draft.factors,
    ],
  );
  return rows[0]?.id as number;
}

/** False when there was none with this id. */
export async function deleteForecast(tx: Transaction, id: number): Promise<boolean> {
  return (await tx.query('delete from forecasts where id = $1', [id])).rowCount === 1;
}

/** Names of some ids that were sold after an instant and up to another, with when. */
export async function selectSoldSince(
  db: Queryable,
  nameIds: readonly number[],
  from: Instant,
  to: Instant,
): Promise<ReadonlyMap<number, Instant>> {
  const { rows } = await db.query<{ nameId: number; at: Instant }>(
    `select name_id as "nameId", min(agreed_at) as at from sales where stage = 'done' and name_id = any($1) and agreed_at > $2 and agreed_at <= $3 group by name_id`,
    [nameIds, new Date(from), new Date(to)],
  );
  return new Map(rows.map(({ nameId, at }) => [nameId, at]));
}
