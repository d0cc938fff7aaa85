import { LARGEST_BACKUP, LARGEST_FILE, LARGEST_MAILS } from '@/usecases/limits';

const MB = 1024 * 1024;

/** What a route takes as its body. `streamed`: it reads the body piece by piece and counts itself, so no length need be said. */
export interface BodyLimit {
  readonly bytes: number;
  readonly streamed: boolean;
}

/** A list that is brought in: a million rows with their columns fit into it. */
const LIST: BodyLimit = { bytes: LARGEST_FILE, streamed: true };

/** Routes whose bodies are larger than a form. What they take is said where the file is chosen, and in docs/api.md. */
const LARGE: Readonly<Record<string, BodyLimit>> = {
  '/api/v1/backup': { bytes: LARGEST_BACKUP, streamed: true },
  '/api/v1/names/import': LIST,
  '/ledger/add/begin': LIST,
  '/record/mails/bring': { bytes: LARGEST_MAILS, streamed: true },
};

/** Requests of programs: a few thousand names with their terms. */
const API: BodyLimit = { bytes: MB, streamed: false };
/** Forms of the interface; the largest is a pasted bootstrap file. */
const PAGE: BodyLimit = { bytes: 4 * MB, streamed: false };

/** The most that a request to `path` may carry, in bytes. */
export function bodyLimit(path: string): BodyLimit {
  return LARGE[path] ?? (path.startsWith('/api/') ? API : PAGE);
}
