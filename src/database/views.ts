import type { Queryable } from './pool';

/** A view of the ledger that was given a name: its filters and order as the query of a URL, and its columns. */
export interface SavedView {
  readonly id: number;
  readonly label: string;
  readonly query: string;
  readonly columns: readonly string[];
}

export async function selectViews(db: Queryable): Promise<SavedView[]> {
  return (await db.query<SavedView>('select id, label, query, columns from views order by lower(label)')).rows;
}

export async function upsertView(
  db: Queryable,
  label: string,
  query: string,
  columns: readonly string[],
): Promise<void> {
  await db.query(
    'insert into views (label, query, columns) values ($1, $2, $3) on conflict (label) do update set query = excluded.query, columns = excluded.columns',
    [label, query, columns],
  );
}

export async function deleteView(db: Queryable, id: number): Promise<void> {
  await db.query('delete from views where id = $1', [id]);
}
