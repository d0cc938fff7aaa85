import { addDays } from '@/core/time';
import { deleteOldImports } from '@/database/imports';
import type { Deps } from '../deps';

/** A list that was brought in is kept for a week: its text, its rows, and what they said. What it wrote stays, with its history. */
const KEPT_DAYS = 7;

/** Deletes lists that were brought in more than a week ago. Answers how many. */
export function dropOldImports(deps: Deps): Promise<number> {
  return deleteOldImports(deps.database, addDays(deps.clock(), -KEPT_DAYS));
}
