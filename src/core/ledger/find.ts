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
  for (const place of placesWith(names, wanted)) {
    const [ascii, unicode] = [names.ascii(place), names.unicode(place)];
    if (ascii.startsWith(wanted) || unicode.startsWith(wanted)) starts.push({ ascii, unicode });
    else if (holds.length < limit) holds.push({ ascii, unicode });
    if (starts.length >= limit) break;
  }
  return [...starts, ...holds].slice(0, limit);
}

/** The places of names that hold `text`, in small letters, in one of their forms, in order. */
export function* placesWith(names: NameTable, text: string): Generator<number> {
  const own = Object.entries(names.columns.sparse.unicode)
    .filter(([, unicode]) => unicode.includes(text))
    .map(([place]) => Number(place));
  let next = 0;
  for (const place of names.placesHolding(text)) {
    for (; next < own.length && (own[next] as number) <= place; next += 1)
      if ((own[next] as number) < place) yield own[next] as number;
    yield place;
  }
  for (; next < own.length; next += 1) yield own[next] as number;
}
