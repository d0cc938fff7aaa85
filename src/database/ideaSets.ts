import type { Instant } from '@/core/time';
import type { Queryable, Transaction } from './pool';

/** Ideas with what is made of them. */
export interface IdeaSetRow {
  readonly id: number;
  readonly label: string;
  readonly ideas: string;
  readonly patterns: readonly string[];
  readonly endings: readonly string[];
  /** How long a name would be held, 1 to 10 years. */
  readonly heldYears: number;
  readonly madeAt: Instant;
  /** Since when changes are marked; `null` before the first check anew. */
  readonly comparedAt: Instant | null;
  readonly paused: boolean;
}

export type IdeaSetDraft = Pick<IdeaSetRow, 'label' | 'ideas' | 'patterns' | 'endings' | 'heldYears'>;

const COLUMNS = `id, label, ideas, patterns, endings, held_years as "heldYears", made_at as "madeAt", compared_at as "comparedAt", paused`;

export async function selectIdeaSets(db: Queryable): Promise<IdeaSetRow[]> {
  return (await db.query<IdeaSetRow>(`select ${COLUMNS} from idea_sets order by made_at desc, id desc`)).rows;
}

export async function selectIdeaSet(db: Queryable, id: number): Promise<IdeaSetRow | null> {
  return (await db.query<IdeaSetRow>(`select ${COLUMNS} from idea_sets where id = $1`, [id])).rows[0] ?? null;
}

export async function insertIdeaSet(tx: Transaction, draft: IdeaSetDraft, at: Instant): Promise<number> {
  const { label, ideas, patterns, endings, heldYears } = draft;
  const { rows } = await tx.query<{ id: number }>(
    'insert into idea_sets (label, ideas, patterns, endings, held_years, made_at) values ($1, $2, $3, $4, $5, $6) returning id',
    [label, ideas, patterns, endings, heldYears, new Date(at)],
  );
  return rows[0]?.id ?? 0;
}

/** Changes what a set is made of. False when it is no longer there. */
export async function updateIdeaSet(tx: Transaction, id: number, draft: IdeaSetDraft): Promise<boolean> {
  const { label, ideas, patterns, endings, heldYears } = draft;
  const { rowCount } = await tx.query(
    'update idea_sets set label = $2, ideas = $3, patterns = $4, endings = $5, held_years = $6 where id = $1',
    [id, label, ideas, patterns, endings, heldYears],
  );
  return rowCount === 1;
}

/** Stops or resumes the asking for a set's names. False when it is no longer there. */
export async function pauseIdeaSet(db: Queryable, id: number, paused: boolean): Promise<boolean> {
  return (await db.query('update idea_sets set paused = $2 where id = $1', [id, paused])).rowCount === 1;
}

/** From now on what changes is marked. */
export async function noteCompared(tx: Transaction, id: number, at: Instant): Promise<void> {
  await tx.query('update idea_sets set compared_at = $2 where id = $1', [id, new Date(at)]);
}

export async function deleteIdeaSet(tx: Transaction, id: number): Promise<boolean> {
  return (await tx.query('delete from idea_sets where id = $1', [id])).rowCount === 1;
}
