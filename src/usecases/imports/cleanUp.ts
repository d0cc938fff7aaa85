import { addDays } from '@/core/time';
import { deleteOldImports, failSilentImports } from '@/database/imports';
import type { Deps } from '../deps';

/** A list that was brought in is kept for a week: its text, its rows, and what they said. What it wrote stays, with its history. */
const KEPT_DAYS = 7;
/** Whoever reads a list says every few thousand rows how far it is, and has two minutes in all: silent for longer, it was cut off. */
const SILENT_MINUTES = 3;

/** Deletes lists that were brought in more than a week ago. Answers how many. */
export function dropOldImports(deps: Deps): Promise<number> {
  return deleteOldImports(deps.database, addDays(deps.clock(), -KEPT_DAYS));
}

/** Ends lists whose reading was cut off by the end of its process, so that they can be read again. Answers how many. */
export function endCutImports(deps: Deps): Promise<number> {
  return failSilentImports(deps.database, SILENT_MINUTES);
}
