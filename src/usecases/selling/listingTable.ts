import type { NameTable } from '@/core/ledger';
import { costIn, type ListingColumns, netProceedsOf, saleFees } from '@/core/selling';
import { VISITS_SHOWN_DAYS } from '@/core/shop';
import { packed } from '@/core/table';
import { type StoredListings, selectListingColumns } from '@/database/listingColumns';
import { selectMarketplaces } from '@/database/marketplaces';
import { selectRates } from '@/database/rates';
import type { Deps } from '../deps';
import { knownNames } from '../names/knownNames';

/** Every listing that is not over with its net proceeds, in columns. */
export async function listingTable(deps: Deps): Promise<ListingColumns> {
  const { database } = deps;
  const [stored, { names }] = await Promise.all([
    selectListingColumns(database, deps.clock(), VISITS_SHOWN_DAYS),
    knownNames(deps),
  ]);
  // After the listings: where each of them stands is among these.
  const [marketplaces, rates] = await Promise.all([selectMarketplaces(database), selectRates(database)]);
  const now = deps.clock();
  const byId = new Map(marketplaces.map((marketplace) => [marketplace.id, marketplace]));
  const fees = stored.listed.map(({ marketplaceId, currency, sent, ...listing }) =>
    saleFees(byId.get(marketplaceId ?? -1) ?? null, { ...listing, sentAt: sent ? now : null }, currency, rates, now),
  );
  const { lines, places } = inOrderOfNames(stored, names);
  const of = (line: number) => stored.terms[line] as number;
  const asked = Float64Array.from(lines, (line) => stored.asked[line] as number);
  const proceeds = asked.map((minor, i) => {
    const taken = fees[of(lines[i] as number)];
    return taken && !Number.isNaN(minor) ? netProceedsOf(minor, taken).proceedsMinor : Number.NaN;
  });
  const currencyOf = (line: number) => stored.listed[of(line)]?.currency ?? '';
  return {
    ascii: Array.from(places, (place) => `${names.ascii(place)}\n`).join(''),
    unicode: ownLetters(places, names),
    id: Int32Array.from(lines, (line) => stored.id[line] as number),
    nameId: Int32Array.from(lines, (line) => stored.nameId[line] as number),
    listedAs: stored.listed.map(({ marketplaceId, kind, currency, status }) => ({
      marketplace: byId.get(marketplaceId ?? -1)?.label ?? 'the office',
      kind,
      currency,
      status,
    })),
    as: Int32Array.from(lines, of),
    asked,
    proceeds,
    profit: proceeds.map((minor, i) => {
      const cost = costIn(names.spent(places[i] as number), currencyOf(lines[i] as number), rates, now);
      return cost === null ? Number.NaN : minor - cost.minor;
    }),
    best: Float64Array.from(places, (place, i) => {
      const offer = names.columns.sparse.bestOffer[place];
      return offer && offer.currency === currencyOf(lines[i] as number) ? offer.minor : Number.NaN;
    }),
    visits: Int32Array.from(lines, (line) => stored.visits[line] as number),
    termEnd: Float64Array.from(places, (place) => names.columns.termEnd[place] as number),
  };
}

/** The lines of listings in the order of their names, with the place of each name; without those whose name is not in the ledger. */
function inOrderOfNames({ nameId }: StoredListings, names: NameTable): { lines: Int32Array; places: Int32Array } {
  const count = nameId.length;
  // Place and line in one number: sorted many times quicker than by comparing.
  const keys = new Float64Array(count);
  let found = 0;
  for (let line = 0; line < count; line += 1) {
    const place = names.placeOf(nameId[line] as number);
    if (place === undefined) continue;
    keys[found] = place * count + line;
    found += 1;
  }
  const sorted = keys.subarray(0, found).sort();
  return {
    lines: Int32Array.from(sorted, (key) => key % count),
    places: Int32Array.from(sorted, (key) => Math.floor(key / count)),
  };
}

/** The U-labels of listed names that have one, by the listing's place. */
function ownLetters(places: Int32Array, { columns }: NameTable): Record<number, string> {
  const found: Record<number, string> = {};
  for (const [i, place] of places.entries()) {
    const unicode = columns.sparse.unicode[place];
    if (unicode !== undefined) found[i] = unicode;
  }
  return found;
}

/** The same for a browser's worker: `ListingColumns`, packed. */
export async function listingBytes(deps: Deps): Promise<Uint8Array> {
  return packed(await listingTable(deps));
}
