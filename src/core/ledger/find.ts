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
  eachWith(names, wanted, (place) => {
    const [ascii, unicode] = [names.ascii(place), names.unicode(place)];
    if (ascii.startsWith(wanted) || unicode.startsWith(wanted)) starts.push({ ascii, unicode });
    else if (holds.length < limit) holds.push({ ascii, unicode });
    return starts.length < limit;
  });
  return [...starts, ...holds].slice(0, limit);
}

/**
 * Visits the places of names that hold `text`, in small letters, in one of their forms, in order, for as long as `visit` answers true. A
 * function for each and no generator: one letter is held by most of hundreds of thousands.
 */
export function eachWith(names: NameTable, text: string, visit: (place: number) => boolean): void {
  const own = Object.entries(names.columns.sparse.unicode)
    .filter(([, unicode]) => unicode.includes(text))
    .map(([place]) => Number(place));
  let next = 0;
  let goesOn = true;
  /** Those in their own letters that come before a place. */
  const visitOwn = (before: number) => {
    for (; goesOn && next < own.length && (own[next] as number) < before; next += 1)
      goesOn = visit(own[next] as number);
  };
  names.eachHolding(text, (place) => {
    visitOwn(place);
    if (own[next] === place) next += 1;
    goesOn &&= visit(place);
    return goesOn;
  });
  visitOwn(names.length);
}
