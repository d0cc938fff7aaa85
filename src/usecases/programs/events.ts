import { EVENT_KINDS } from '@/core/journal';
import { type Refusal, refuse } from '@/core/refusal';
import { addDays, formatInstant } from '@/core/time';
import { type EventRow, forgetEvents, selectEvents, selectPlaces } from '@/database/events';
import type { Deps } from '../deps';

/** Something that happened, as other programs read it. */
export interface EventDocument {
  /** Where one stands who has read it: what comes after it is asked for by it. */
  readonly id: string;
  /** RFC 3339. */
  readonly at: string;
  readonly kind: string;
  /** Which one of its kind: the number or id under which the interface has it. */
  readonly subject: string;
  readonly name: string | null;
  readonly data: Readonly<Record<string, unknown>>;
}

export interface EventPage {
  readonly events: readonly EventDocument[];
  /** Where to go on. */
  readonly next: string;
}

const KEPT_DAYS = 90;
/** Where a text says that one stands; `null` where it says nothing of the kind. */
const placeFrom = (text: string): number | null => (/^\d{1,15}$/.test(text) ? Number(text) : null);

const camel = (column: string) => column.replace(/_(\w)/g, (_, letter: string) => letter.toUpperCase());
/** Instants of the database as the interface writes them. */
const INSTANT = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d/;
const plain = (value: unknown) =>
  typeof value === 'string' && INSTANT.test(value) ? formatInstant(Date.parse(value) as never) : value;

export const eventDocument = (row: EventRow): EventDocument => ({
  id: String(row.place),
  at: formatInstant(row.at),
  kind: row.kind,
  subject: row.subject,
  name: row.ascii ?? (typeof row.told.ascii === 'string' ? row.told.ascii : null),
  data: Object.fromEntries(
    Object.entries(row.told).flatMap(([column, value]) => (column === 'ascii' ? [] : [[camel(column), plain(value)]])),
  ),
});

/** The events after a place in order, at most `limit`: from the first one kept where it says nothing, from now on for `now`. */
export async function eventsAfter(
  { database }: Pick<Deps, 'database'>,
  after: string | null,
  kinds: readonly string[],
  limit: number,
): Promise<EventPage | Refusal> {
  if (after === 'now') return { events: [], next: String((await selectPlaces(database)).last) };
  const from = after === null ? 0 : placeFrom(after);
  if (from === null)
    return refuse('cursor-invalid', 'Send what an earlier answer gave as next, or now, or nothing.', 'after');
  const unknown = kinds.find((kind) => !(EVENT_KINDS as readonly string[]).includes(kind));
  if (unknown !== undefined) return refuse('query-invalid', `Kinds are ${EVENT_KINDS.join(', ')}.`, 'kinds');
  if (after !== null && from < (await selectPlaces(database)).forgotten)
    return refuse(
      'events-forgotten',
      `Events are kept for ${KEPT_DAYS} days, and some after that place are gone. Read the ledger anew, and follow from now.`,
      'after',
    );
  const { events, upTo } = await selectEvents(database, from, kinds, limit);
  return { events: events.map(eventDocument), next: String(upTo) };
}

/** Forgets what happened more than ninety days ago. Answers how many events. */
export const forgetOldEvents = (deps: Deps): Promise<number> =>
  forgetEvents(deps.database, addDays(deps.clock(), -KEPT_DAYS));
