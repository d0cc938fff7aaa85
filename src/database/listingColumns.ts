import { type ListingKind, type ListingStatus, OVER_LISTINGS } from '@/core/selling';
import { Dictionary, Growing } from '@/core/table';
import { addDays, dayOf, type Instant } from '@/core/time';
import { type BinaryRow, copyRows } from './copyRows';
import { ASKED } from './listings';
import { oneOf } from './oneOf';
import { type Database, snapshot } from './pool';

/** What many listings have alike: where and how they are listed, and what is still to be paid for that. */
export interface ListedTerms {
  readonly marketplaceId: number | null;
  readonly kind: ListingKind;
  readonly currency: string;
  readonly status: ListingStatus;
  readonly sent: boolean;
  readonly attributes: Readonly<Record<string, string>>;
  readonly categories: readonly string[];
}

/** Listings that are not over, in columns, by name and as they were made: `terms` of each is an index of `listed`. `asked` is `NaN` where nothing is asked. */
export interface StoredListings {
  readonly listed: readonly ListedTerms[];
  readonly terms: Int32Array;
  readonly id: Int32Array;
  readonly nameId: Int32Array;
  readonly asked: Float64Array;
  readonly visits: Int32Array;
}

/** What is still to be paid for: what a listing that was sent has chosen is paid already, and does not set it apart. */
const UNPAID =
  "case when sent_at is null then json_build_object('attributes', attributes, 'categories', categories)::text end";

const query = (first: string, last: string) => `
  select l.id, l.name_id, ${ASKED}, coalesce(v.visits, 0), marketplace_id, kind, currency, status, ${UNPAID}
  from listings l left join (
    select name_id, sum(visits)::int as visits from visits where day > '${first}' and day <= '${last}' group by name_id) v on v.name_id = l.name_id
  where status not ${oneOf(OVER_LISTINGS)} order by l.name_id, l.id`;

/** Every listing that is not over, with how often its window was opened in the `days` until an instant. */
export async function selectListingColumns(db: Database, until: Instant, days: number): Promise<StoredListings> {
  const [id, nameId, visits] = [new Growing(Int32Array), new Growing(Int32Array), new Growing(Int32Array)];
  const [asked, terms] = [new Growing(Float64Array), new Growing(Int32Array)];
  const listed = new Dictionary<ListedTerms>();
  await snapshot(db, (client) =>
    copyRows(client, query(dayOf(addDays(until, -days)), dayOf(until)), (row) => {
      id.push(row.int32());
      nameId.push(row.int32());
      asked.push(row.int64());
      visits.push(row.int32());
      terms.push(takeTerms(row, listed));
    }),
  );
  return {
    listed: listed.values,
    terms: terms.done(),
    id: id.done(),
    nameId: nameId.done(),
    asked: asked.done(),
    visits: visits.done(),
  };
}

/** The terms at the end of a row; those that were met before are not read again. */
function takeTerms(row: BinaryRow, listed: Dictionary<ListedTerms>): number {
  const marketplaceId = row.int32();
  const [kind, currency, status, unpaid] = [row.key(), row.key(), row.key(), row.text()];
  return listed.code(
    `${marketplaceId} ${kind} ${currency} ${status} ${unpaid}`,
    (): ListedTerms => ({
      marketplaceId: Number.isNaN(marketplaceId) ? null : marketplaceId,
      kind: kind as ListingKind,
      currency: currency as string,
      status: status as ListingStatus,
      sent: unpaid === null,
      ...(JSON.parse(unpaid ?? '{"attributes":{},"categories":[]}') as Pick<ListedTerms, 'attributes' | 'categories'>),
    }),
  );
}
