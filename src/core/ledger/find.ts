import type { LedgerName } from './data';

/** A name by both its forms. */
export type FoundName = Pick<LedgerName, 'ascii' | 'unicode'>;

/** Up to `limit` names that hold `text` in one of their forms, those that begin with it first. Letters count in either case. */
export function findNames(names: readonly LedgerName[], text: string, limit: number): FoundName[] {
  const wanted = text.trim().toLowerCase();
  if (wanted === '') return [];
  const starts: FoundName[] = [];
  const holds: FoundName[] = [];
  for (const { ascii, unicode } of names) {
    if (ascii.startsWith(wanted) || unicode.startsWith(wanted)) starts.push({ ascii, unicode });
    else if (holds.length < limit && (ascii.includes(wanted) || unicode.includes(wanted)))
      holds.push({ ascii, unicode });
    if (starts.length >= limit) break;
  }
  return [...starts, ...holds].slice(0, limit);
}
