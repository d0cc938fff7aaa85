import {
  arranged,
  LedgerDay,
  type LedgerView,
  LOOK_AHEAD_YEARS,
  matchingPlaces,
  type Projection,
  placeBehind,
  type SortedAt,
  sortedAt,
  todayOf,
  viewFromQuery,
} from '@/core/ledger';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import type { Places } from '@/core/table';
import { addYears, type Instant, parseDay, parseInstant, startOfDay } from '@/core/time';
import type { Deps } from '../deps';
import { projectedLedger } from './ledger';
import { NAMES_REST_ON, type NameDocument, nameDocument } from './nameDocument';

/** The most names one page holds. */
export const LARGEST_PAGE = 1000;
const USUAL_PAGE = 100;

/** A view of the ledger on one day, in order. */
export interface ArrangedLedger {
  readonly ledger: LedgerDay;
  readonly places: Places;
  readonly view: LedgerView;
}

/** Reads `asOf` from a query: an instant or a day, from today to two years ahead; today when it is not said. */
export function asOfFrom(query: URLSearchParams, today: Instant): Instant | Refusal {
  const text = query.get('asOf');
  if (text === null || text === '') return today;
  const day = parseDay(text);
  const at = day ? startOfDay(day) : parseInstant(text);
  if (at === null)
    return refuse('query-invalid', `asOf “${text.slice(0, 40)}” is not a day or an RFC 3339 instant.`, 'asOf');
  if (at > addYears(today, LOOK_AHEAD_YEARS))
    return refuse('query-invalid', 'asOf lies more than two years ahead.', 'asOf');
  return at < today ? today : at;
}

/** Filters and sorts the ledger by the query of a URL, exactly as the screen does with the same query. */
export async function arrangeLedger(deps: Deps, query: URLSearchParams): Promise<ArrangedLedger | Refusal> {
  const projection = await projectedLedger(deps);
  const asOf = asOfFrom(query, projection.asOf);
  if (isRefusal(asOf)) return asOf;
  const key = arrangementKey(query, asOf);
  const known = kept.get(projection)?.get(key);
  if (known) return known;
  const view = viewFromQuery(withAccountLabels(query, projection));
  const today = todayOf(projection);
  const ledger = asOf === projection.asOf ? today : new LedgerDay(projection, asOf, today);
  const arrangement = { ledger, places: arranged(ledger, matchingPlaces(ledger, view), view), view };
  keepArranged(projection, key, arrangement);
  return arrangement;
}

/** The last few arrangements of a projection: pages of one view follow each other, and many may look at the same. */
const kept = new WeakMap<Projection, Map<string, ArrangedLedger>>();
const MOST_ARRANGED = 4;

function keepArranged(projection: Projection, key: string, ledger: ArrangedLedger): void {
  const views = kept.get(projection) ?? new Map<string, ArrangedLedger>();
  kept.set(projection, views);
  views.set(key, ledger);
  const [oldest] = views.keys();
  if (views.size > MOST_ARRANGED && oldest !== undefined) views.delete(oldest);
}

/** The same for all pages of a view: the first says no day, and the cursors of the others that of the first. */
function arrangementKey(query: URLSearchParams, asOf: Instant): string {
  const copy = new URLSearchParams(query);
  for (const name of ['asOf', 'cursor', 'limit', 'format', 'columns']) copy.delete(name);
  copy.sort();
  return `${asOf} ${copy.toString()}`;
}

/** Accounts may be named by their label as well as by their number. */
function withAccountLabels(query: URLSearchParams, projection: Projection): URLSearchParams {
  const copy = new URLSearchParams(query);
  const ids = query
    .getAll('account')
    .flatMap((value) => value.split(','))
    .map((value) => {
      const found = projection.index.rules.accounts.find(
        (account) => account.label.toLowerCase() === value.toLowerCase(),
      );
      return String(found?.id ?? (/^\d+$/.test(value) ? value : 0));
    });
  copy.delete('account');
  for (const id of ids) copy.append('account', id);
  return copy;
}

export interface NamePage {
  readonly names: readonly NameDocument[];
  /** Where the next page begins, `null` after the last. */
  readonly next: string | null;
  readonly restsOn: readonly { readonly what: string; readonly asOf: string | null }[];
}

/**
 * One page of names. The cursor holds the day it was read on and where the page ended: by what the name was sorted, and the name. Paging
 * neither skips nor repeats a name while others come, go and change; only one whose own place moves over the cursor meanwhile may be.
 */
export async function pageOfNames(deps: Deps, query: URLSearchParams): Promise<NamePage | Refusal> {
  const limit = Number(query.get('limit') ?? USUAL_PAGE);
  if (!Number.isInteger(limit) || limit < 1 || limit > LARGEST_PAGE)
    return refuse('query-invalid', `limit is a whole number from 1 to ${LARGEST_PAGE}.`, 'limit');
  const cursor = readCursor(query.get('cursor'));
  if (isRefusal(cursor)) return cursor;
  const copy = new URLSearchParams(query);
  if (cursor) copy.set('asOf', cursor.asOf);
  const arrangement = await arrangeLedger(deps, copy);
  if (isRefusal(arrangement)) return arrangement;
  const { ledger, places, view } = arrangement;
  const standing = sortedAt(ledger, view);
  const start = cursor ? placeBehind(places, cursor.at, view, standing) : 0;
  const page = places.slice(start, start + limit);
  const last = page.at(-1);
  const isLast = last === undefined || start + limit >= places.length;
  return {
    names: ledger.rows(page).map((row) => nameDocument(row, ledger.projection, ledger.day)),
    next: isLast ? null : writeCursor(standing(last), new Date(ledger.day).toISOString()),
    restsOn: [{ what: NAMES_REST_ON, asOf: null }],
  };
}

interface Cursor {
  readonly asOf: string;
  readonly at: SortedAt;
}

function writeCursor([key, name]: SortedAt, asOf: string): string {
  return Buffer.from(JSON.stringify([asOf, key, name])).toString('base64url');
}

function readCursor(text: string | null): Cursor | null | Refusal {
  if (text === null || text === '') return null;
  try {
    const [asOf, key, name] = JSON.parse(Buffer.from(text, 'base64url').toString('utf8')) as unknown[];
    const isKey = key === null || typeof key === 'string' || typeof key === 'number';
    if (typeof asOf === 'string' && isKey && typeof name === 'string') return { asOf, at: [key, name] };
  } catch {
    // Falls through to the refusal below.
  }
  return refuse('query-invalid', 'This cursor was not given out here. Begin again without one.', 'cursor');
}
