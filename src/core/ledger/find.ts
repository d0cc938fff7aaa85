import type { LedgerName } from './data';
import type { NameTable } from './nameTable';

/** A name by both its forms. */
export type FoundName = Pick<LedgerName, 'ascii' | 'unicode'>;

/** Up to `limit` names that hold `text` in one of their forms, those that begin with it first. Letters count in either case. */
export function findNames(names: NameTable, text: string, limit: number): FoundName[] {
  const wanted = text.trim().toLowerCase();
  if (wanted === '') return [];
  const starts: FoundName[] = [];
  const holds: FoundName[] = [];
  names.spellings.eachWith(wanted, (place) => {
    const [ascii, unicode] = [names.ascii(place), names.unicode(place)];
    if (ascii.startsWith(wanted) || unicode.startsWith(wanted)) starts.push({ ascii, unicode });
    else if (holds.length < limit) holds.push({ ascii, unicode });
    return starts.length < limit;
  });
  return [...starts, ...holds].slice(0, limit);
}
