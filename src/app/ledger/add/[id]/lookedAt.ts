import type { ImportSummary } from '@/usecases/imports/preview';

/**
 * An import as it is shown after a look at it. A look may come late: once what was asked is answered, that stands. `isAsked`: somebody
 * waits for it to be read, and the server may not have heard of that yet; what was said of how to read it is kept where it was lost.
 */
export function lookedAt(shown: ImportSummary, seen: ImportSummary, isAsked: boolean): ImportSummary {
  const { status, rowsDone } = seen.row;
  if (shown.row.status !== 'reading' && shown.row.status !== 'writing') return shown;
  if (status === shown.row.status) return { ...shown, row: { ...shown.row, rowsDone } };
  if (status !== 'asking') return seen;
  return isAsked ? shown : { ...shown, row: { ...shown.row, status } };
}
